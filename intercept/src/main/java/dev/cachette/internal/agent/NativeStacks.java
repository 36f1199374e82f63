// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * HTTP clients that open connections in native code, past every hook. They are noticed when their
 * classes are loaded, so that a test that uses one is not silently sent to the real service.
 */
public final class NativeStacks {

  /** The classes of the AWS Common Runtime without which it makes no call, with slashes. */
  private static final Set<String> OF_AWS =
      Set.of(
          "software/amazon/awssdk/crt/http/HttpClientConnectionManager",
          "software/amazon/awssdk/crt/http/HttpStreamManager",
          "software/amazon/awssdk/crt/s3/S3Client");

  private static final String WARNING_OF_AWS =
      "The AWS Common Runtime is loaded: its native code opens connections itself, which Cachette"
          + " cannot intercept, so they reach the real service. Fix: build the client with a Java"
          + " HTTP client in this test, such as"
          + " httpClientBuilder(NettyNioAsyncHttpClient.builder()) instead of AwsCrtHttpClient, or"
          + " S3AsyncClient.builder() instead of crtBuilder(); or give it"
          + " net.baseUrlFor(\"https://...\") as endpointOverride.";

  /** The warnings that are due; none is repeated in a JVM. */
  private static final Set<String> NOTED = ConcurrentHashMap.newKeySet();

  private static final Set<String> GIVEN = ConcurrentHashMap.newKeySet();

  private static volatile @Nullable Consumer<String> listener;

  private NativeStacks() {}

  /** Warns of those that are loaded, and of those that will be. */
  public static void warn(Consumer<String> warning) {
    listener = warning;
    NOTED.forEach(NativeStacks::give);
  }

  /** Notes a class that is loaded already. */
  static void loaded(Class<?> type) {
    if (type.getName().startsWith("software.amazon.")) {
      loaded(type.getName().replace('.', '/'));
    }
  }

  /** Notes a class, with slashes, that is being loaded. */
  static void loaded(String className) {
    if (OF_AWS.contains(className)) {
      NOTED.add(WARNING_OF_AWS);
      give(WARNING_OF_AWS);
    }
  }

  private static void give(String warning) {
    Consumer<String> waiting = listener;
    if (waiting != null && GIVEN.add(warning)) {
      waiting.accept(warning);
    }
  }
}
