// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.http.Uri;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.real.RealAddress;
import dev.cachette.internal.real.RealCalls;
import dev.cachette.internal.real.RealTrust;
import dev.cachette.internal.wire.Engine;
import java.nio.file.Path;
import java.security.cert.X509Certificate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * How real services are called: for {@link Cachette#letThrough} with a request line, real services
 * as answers, and recording. By default at their own addresses, with the certificates that the JVM
 * trusts. Immutable: every method that sets something returns a new object.
 */
public final class RealServices {

  private static final Pattern NOT_IN_NAMES = Pattern.compile("[\\s/:@?#\\[\\]]");

  private static final RealServices DEFAULTS = new RealServices(Map.of(), List.of());

  private final Map<String, RealAddress> addresses;
  private final List<X509Certificate> authorities;

  private RealServices(Map<String, RealAddress> addresses, List<X509Certificate> authorities) {
    this.addresses = addresses;
    this.authorities = authorities;
  }

  /** Returns the defaults. */
  public static RealServices defaults() {
    return DEFAULTS;
  }

  /**
   * Calls a service at another address, a staging system for example. The code under test, and the
   * cassette, use the origin of production. TLS (server name and certificate) and the Host header
   * use the host name of the address.
   *
   * @param origin scheme, host and port: {@code https://tides.example}
   * @param address its address: {@code https://tides.staging.example:8443}
   * @throws IllegalArgumentException if one of them is not an origin
   */
  public RealServices at(String origin, String address) {
    return with(origin, address, null);
  }

  /**
   * Calls a service at another address, but with this host name in TLS (server name and
   * certificate, RFC 6066) and in the Host header: for an address that has no name, such as a
   * tunnel, a load balancer, or a container on this machine.
   *
   * @param origin scheme, host and port: {@code https://tides.example}
   * @param address its address: {@code https://127.0.0.1:8443}
   * @param hostName a host name, without a port: {@code tides.example}
   * @throws IllegalArgumentException if one of them is malformed
   */
  public RealServices at(String origin, String address, String hostName) {
    requireGiven("at", hostName);
    return with(origin, address, hostName);
  }

  private RealServices with(String origin, String address, @Nullable String hostName) {
    requireGiven("at", origin);
    requireGiven("at", address);
    Uri other = Uri.parseOrigin(address);
    String name = hostName == null ? other.host() : hostOf(hostName);
    Map<String, RealAddress> more = new LinkedHashMap<>(addresses);
    more.put(Uri.parseOrigin(origin).origin(), new RealAddress(other, name));
    return new RealServices(Collections.unmodifiableMap(more), authorities);
  }

  private static String hostOf(String name) {
    try {
      String host = Uri.parseOrigin("https://" + name).host();
      if (NOT_IN_NAMES.matcher(name).results().findAny().isEmpty()) {
        return host;
      }
    } catch (IllegalArgumentException malformed) {
      // Reported below.
    }
    throw Refusals.argument(
        "\"" + name + "\" is not a host name. Fix: give it without scheme and port.");
  }

  /**
   * Trusts certificates of real services that are signed by these authorities, in addition to what
   * the JVM trusts. Host names and periods are checked as always.
   *
   * @param certificates a file with one or more certificates in PEM format
   * @throws IllegalArgumentException if it cannot be read, or has no certificate
   */
  public RealServices trusting(Path certificates) {
    requireGiven("trusting", certificates);
    List<X509Certificate> more = new ArrayList<>(authorities);
    more.addAll(RealTrust.read(certificates));
    return new RealServices(addresses, List.copyOf(more));
  }

  RealCalls calledBy(Engine engine) {
    return new RealCalls(engine, addresses, authorities);
  }

  private static void requireGiven(String method, @Nullable Object argument) {
    Refusals.given("RealServices." + method + "(...)", argument);
  }
}
