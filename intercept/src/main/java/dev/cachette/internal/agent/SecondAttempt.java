// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import dev.cachette.answer.Fault;
import java.lang.StackWalker.StackFrame;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/**
 * Recognises further attempts for one call. {@code java.net.http.HttpClient} looks up a host
 * several times for a call, and connects again by itself if a connection fails; the code under test
 * sees one call, so all attempts must meet the same fault. Its stack tells them apart: only it
 * starts them.
 */
final class SecondAttempt {

  private static final String CLIENT = "jdk.internal.net.http.";

  /** Methods that only run after a first look-up or connection of the same call. */
  private static final Set<String> FURTHER =
      Set.of(
          "common.Utils.resolveAddress",
          "PlainHttpConnection.checkRetryConnect",
          "MultiExchange.getExceptionalCF",
          "ExchangeImpl.createExchangeImpl",
          "Http2Connection.createAsync");

  /** Continues a call with a new exchange, after the first one has failed. */
  private static final String NEXT_EXCHANGE = "MultiExchange.lambda$responseAsyncImpl$";

  private static final StackWalker STACK = StackWalker.getInstance();

  /** The fault that the current call for a host has met. */
  private final Map<String, Fault> met = new ConcurrentHashMap<>();

  /** Notes the fault that an attempt has met. */
  void note(String host, Fault fault) {
    met.put(host, fault);
  }

  /** Returns true if this is a further attempt of a call that has met a fault. */
  boolean isOne(String host) {
    if (!met.containsKey(host)) {
      return false;
    }
    if (STACK.walk(frames -> frames.anyMatch(SecondAttempt::isFurther))) {
      return true;
    }
    met.remove(host);
    return false;
  }

  /** Returns the fault to meet again at this stage. */
  Optional<Fault> fault(Fault.Stage stage, String host) {
    return Optional.ofNullable(met.get(host)).filter(fault -> fault.kind().stage() == stage);
  }

  /** Returns true if {@code java.net.http.HttpClient} connects. */
  static boolean isByJavaClient() {
    return STACK.walk(frames -> frames.anyMatch(frame -> frame.getClassName().startsWith(CLIENT)));
  }

  private static boolean isFurther(StackFrame frame) {
    if (!frame.getClassName().startsWith(CLIENT)) {
      return false;
    }
    String method = frame.getClassName().substring(CLIENT.length()) + "." + frame.getMethodName();
    return FURTHER.contains(method) || method.startsWith(NEXT_EXCHANGE);
  }
}
