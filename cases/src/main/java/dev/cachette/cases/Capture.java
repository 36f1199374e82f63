// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import dev.cachette.Cachette;
import dev.cachette.CachetteInternals;
import dev.cachette.Settings;
import dev.cachette.UnexpectedCalls;
import dev.cachette.UnusedStubs;
import dev.cachette.http.Request;
import dev.cachette.internal.cases.capture.CallsInFlight;
import dev.cachette.internal.cases.capture.CapturedCalls;
import dev.cachette.internal.cases.capture.CapturedCase;
import dev.cachette.internal.cases.capture.FollowedClients;
import dev.cachette.internal.cases.capture.IncomingCalls;
import dev.cachette.internal.cases.capture.OutgoingCalls;
import dev.cachette.internal.cases.capture.Sessions;
import dev.cachette.internal.cases.file.CaseFolder;
import dev.cachette.internal.engine.RealCallObserver;
import dev.cachette.internal.engine.RealServiceFailed;
import dev.cachette.internal.masking.RequestMask;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.tunnel.TunnelledClients;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.util.List;
import java.util.Optional;

/**
 * Captures the calls of a running application as cases: what came in, what it called, what it
 * answered. It is a reverse proxy for the application, and a forward proxy for the calls that the
 * application makes; {@code cachette capture} starts applications so that they use it.
 *
 * <p>Thread-safe. Closing it writes what is left.
 */
public final class Capture implements AutoCloseable {

  private static final int MOST_CALLS = 100;

  private final CaptureSettings settings;
  private final CapturedCalls captured;
  private final TunnelledClients applications;
  private final Cachette incoming;
  private final Cachette outgoing;

  private Capture(CaptureSettings settings, CaptureListener listener) {
    this.settings = settings;
    this.captured =
        new CapturedCalls(
            settings.folder(),
            settings.redaction(),
            new Sessions(settings.session(), settings.sessionCookie()),
            captured -> listener.written(shown(captured)));
    try {
      this.applications = TunnelledClients.open(settings.agentPort());
    } catch (IOException taken) {
      captured.close();
      throw new IllegalStateException(taken.getMessage(), taken);
    }
    CallsInFlight inFlight = new CallsInFlight(applications::isAny, System::nanoTime);
    this.outgoing =
        Cachette.open(
            base()
                .name("the proxy for outgoing calls")
                .listenAddress(
                    new InetSocketAddress(
                        InetAddress.getLoopbackAddress(), settings.outgoingPort())));
    CachetteInternals.knowClientsBy(outgoing, new FollowedClients(applications));
    CachetteInternals.capture(
        outgoing,
        new OutgoingCalls(
            captured,
            inFlight,
            settings.background(),
            (request, possible) -> listener.doubted(masked(request), possible)));
    this.incoming =
        Cachette.open(
            base()
                .name("the proxy for incoming calls")
                .listenAddress(settings.listenAddress())
                .servingAs(settings.application()));
    CachetteInternals.capture(
        incoming,
        new IncomingCalls(
            captured,
            inFlight,
            applications,
            settings.application(),
            this::baseUrl,
            settings.isRepeatingSafe() ? Optional.of(this::send) : Optional.empty()));
  }

  private static String masked(Request request) {
    return RequestMask.of(request, List.of()).text(request.toString());
  }

  private Settings base() {
    Settings base =
        Settings.defaults()
            .withoutInterception()
            .unexpectedCalls(UnexpectedCalls.WARN)
            .unusedStubs(UnusedStubs.IGNORE)
            .acceptLateCalls(true)
            .maxCalls(MOST_CALLS)
            .realServices(settings.realServices());
    return settings.certificateAuthority().map(base::certificateAuthority).orElse(base);
  }

  private void send(Request request, RealCallObserver observer) {
    try {
      CachetteInternals.call(incoming, request, observer);
    } catch (RealServiceFailed failed) {
      observer.ended(failed.exchange());
    }
  }

  /**
   * Begins to capture.
   *
   * @param listener receives what is captured, on the threads that capture it
   * @throws dev.cachette.cassette.CassetteException if a file in the folder is not one of a case
   * @throws IllegalStateException if a port is taken
   */
  public static Capture open(CaptureSettings settings, CaptureListener listener) {
    Refusals.given("open(settings, listener)", settings);
    Refusals.given("open(settings, listener)", listener);
    Capture opened = new Capture(settings, listener);
    try {
      opened.incoming.baseUrl();
      opened.outgoing.baseUrl();
      return opened;
    } catch (RuntimeException taken) {
      opened.close();
      throw taken;
    }
  }

  /** Returns the base URL for callers, instead of that of the application. */
  public String baseUrl() {
    return incoming.baseUrl();
  }

  /** Returns the proxy for the calls that the application makes. */
  public URI proxy() {
    return outgoing.proxy().uri();
  }

  /** Returns the certificate of the authority that the application has to trust, in PEM format. */
  public String authorityPem() {
    return outgoing.proxy().authorityPem();
  }

  /** Returns the proxy for incoming calls, such as for a control port. */
  public Cachette net() {
    return incoming;
  }

  /** Returns the port where agents in applications connect. */
  public int agentPort() {
    return applications.port();
  }

  /** Returns the cases, in the order of their numbers. */
  public List<CapturedCaseInfo> cases() {
    return captured.cases().stream().filter(it -> !it.isDropped()).map(this::shown).toList();
  }

  private CapturedCaseInfo shown(CapturedCase it) {
    return CapturedCaseInfo.of(it, new CaseFolder(settings.folder()));
  }

  /**
   * Gives a case another name.
   *
   * @throws IllegalArgumentException if there is no such case, or the name has no letter or digit
   */
  public void rename(long number, String name) {
    captured.rename(number, Refusals.given("rename(number, name)", name));
  }

  /**
   * Removes a case, and its file; one that was there before is restored.
   *
   * @throws IllegalArgumentException if there is no such case
   */
  public void drop(long number) {
    captured.drop(number);
  }

  /**
   * Marks a place in the responses of a case as varying: it is not compared when the case is
   * replayed.
   *
   * @param place a JSONPath, an XPath, {@code header NAME}, or {@code body}
   * @throws IllegalArgumentException if there is no such case, or it is not a place
   */
  public void markVarying(long number, String place) {
    captured.mark(number, Refusals.given("markVarying(number, place)", place));
  }

  /**
   * Ends it, and writes what is left.
   *
   * @throws dev.cachette.cassette.CassetteException if a case cannot be written
   */
  @Override
  public void close() {
    captured.finish();
    closing(incoming);
    closing(outgoing);
    try (applications) {
      captured.close();
    } catch (IOException notClosed) {
      throw new UncheckedIOException(notClosed);
    }
  }

  /** Callers have received the reason why a call was not answered. */
  private static void closing(Cachette net) {
    try {
      net.close();
    } catch (AssertionError reported) {
      // There is no test that it could fail.
    }
  }
}
