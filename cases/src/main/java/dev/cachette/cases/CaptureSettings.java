// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import dev.cachette.RealServices;
import dev.cachette.cassette.Redaction;
import dev.cachette.http.Uri;
import dev.cachette.internal.cases.file.CaseName;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.match.RequestPattern;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * The settings of a {@link Capture}. Immutable: every method that sets something returns a new
 * object.
 */
public final class CaptureSettings {

  private final Path folder;
  private final String application;
  private InetSocketAddress listenAddress =
      new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);
  private int outgoingPort;
  private int agentPort;
  private @Nullable Path authority;
  private Redaction redaction = Redaction.byDefault();
  private RealServices services = RealServices.defaults();
  private List<RequestPattern> background = List.of();
  private @Nullable String session;
  private @Nullable String sessionCookie;
  private boolean repeatingSafe;

  private CaptureSettings(Path folder, String application) {
    this.folder = folder;
    this.application = application;
  }

  private CaptureSettings(CaptureSettings other) {
    this.folder = other.folder;
    this.application = other.application;
    this.listenAddress = other.listenAddress;
    this.outgoingPort = other.outgoingPort;
    this.agentPort = other.agentPort;
    this.authority = other.authority;
    this.redaction = other.redaction;
    this.services = other.services;
    this.background = other.background;
    this.session = other.session;
    this.sessionCookie = other.sessionCookie;
    this.repeatingSafe = other.repeatingSafe;
  }

  /**
   * Returns settings that write the cases of an application into a folder.
   *
   * @param folder the folder; created if it does not exist
   * @param application the origin of the running application: {@code http://localhost:8080}
   * @throws IllegalArgumentException if the origin is malformed
   */
  public static CaptureSettings of(Path folder, String application) {
    Refusals.given("of(folder, application)", folder);
    Refusals.given("of(folder, application)", application);
    return new CaptureSettings(folder, Uri.parseOrigin(application).origin());
  }

  /**
   * Sets where callers call, instead of the application; a free port of this machine by default.
   */
  public CaptureSettings listenAddress(InetSocketAddress address) {
    Refusals.given("listenAddress(address)", address);
    CaptureSettings changed = new CaptureSettings(this);
    changed.listenAddress = address;
    return changed;
  }

  /**
   * Sets the port of the proxy for outgoing calls, on this machine, for an application that runs
   * already; a free port by default. Its agent asks at the port after it.
   *
   * @throws IllegalArgumentException if it is not between 1 and 65534
   */
  public CaptureSettings outgoingPort(int port) {
    if (port < 1 || port > 65_534) {
      throw Refusals.argument("outgoingPort(port) needs a port from 1 to 65534, not " + port + ".");
    }
    CaptureSettings changed = new CaptureSettings(this);
    changed.outgoingPort = port;
    changed.agentPort = port + 1;
    return changed;
  }

  /** Sets the file with the authority of certificates; created if it does not exist. */
  public CaptureSettings certificateAuthority(Path file) {
    Refusals.given("certificateAuthority(file)", file);
    CaptureSettings changed = new CaptureSettings(this);
    changed.authority = file;
    return changed;
  }

  /** Sets what is redacted before anything is written; the usual secrets by default. */
  public CaptureSettings redaction(Redaction rules) {
    Refusals.given("redaction(rules)", rules);
    CaptureSettings changed = new CaptureSettings(this);
    changed.redaction = rules;
    return changed;
  }

  /** Sets how the application and the services that it calls are reached. */
  public CaptureSettings realServices(RealServices how) {
    Refusals.given("realServices(how)", how);
    CaptureSettings changed = new CaptureSettings(this);
    changed.services = how;
    return changed;
  }

  /**
   * Adds outgoing calls that the application makes by itself, such as a heartbeat; they belong to
   * no incoming call.
   *
   * @param requestLines {@code GET https://status.example/{+rest}}
   * @throws IllegalArgumentException if one is malformed
   */
  public CaptureSettings background(String... requestLines) {
    Refusals.given("background(requestLines)", requestLines);
    CaptureSettings changed = new CaptureSettings(this);
    changed.background =
        Stream.concat(background.stream(), Stream.of(requestLines).map(RequestPattern::of))
            .toList();
    return changed;
  }

  /**
   * Writes all incoming calls as the steps of one case, in order.
   *
   * @param name its name
   * @throws IllegalArgumentException if the name has no letter or digit
   */
  public CaptureSettings session(String name) {
    Refusals.given("session(name)", name);
    CaptureSettings changed = new CaptureSettings(this);
    changed.session = CaseName.given(name);
    return changed;
  }

  /** Writes incoming calls with the same value of a cookie as the steps of one case. */
  public CaptureSettings sessionCookie(String name) {
    Refusals.given("sessionCookie(name)", name);
    CaptureSettings changed = new CaptureSettings(this);
    changed.sessionCookie = name;
    return changed;
  }

  /**
   * Repeats safe requests (GET, HEAD; RFC 9110 section 9.2.1) once, and marks what differs as
   * varying.
   */
  public CaptureSettings repeatingSafe() {
    CaptureSettings changed = new CaptureSettings(this);
    changed.repeatingSafe = true;
    return changed;
  }

  /** Returns the folder of cases. */
  public Path folder() {
    return folder;
  }

  /** Returns the origin of the application. */
  public String application() {
    return application;
  }

  InetSocketAddress listenAddress() {
    return listenAddress;
  }

  int outgoingPort() {
    return outgoingPort;
  }

  int agentPort() {
    return agentPort;
  }

  Optional<Path> certificateAuthority() {
    return Optional.ofNullable(authority);
  }

  Redaction redaction() {
    return redaction;
  }

  RealServices realServices() {
    return services;
  }

  List<RequestPattern> background() {
    return background;
  }

  Optional<String> session() {
    return Optional.ofNullable(session);
  }

  Optional<String> sessionCookie() {
    return Optional.ofNullable(sessionCookie);
  }

  boolean isRepeatingSafe() {
    return repeatingSafe;
  }
}
