// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases.capture;

import dev.cachette.cassette.Exchange;
import dev.cachette.http.Request;
import dev.cachette.internal.engine.Capturing;
import dev.cachette.internal.engine.Maker;
import dev.cachette.match.RequestPattern;
import java.util.List;
import java.util.function.Consumer;

/** Passes the outgoing calls of the application on to their services. */
public final class OutgoingCalls implements Capturing {

  private final CapturedCalls captured;
  private final CallsInFlight inFlight;
  private final List<RequestPattern> background;
  private final Doubts doubts;

  /** Receives outgoing calls that cannot be attributed. */
  @FunctionalInterface
  public interface Doubts {

    /** Called for each of them, with the numbers of the incoming calls that may have made it. */
    void of(Request request, List<Long> possible);
  }

  /**
   * Creates it.
   *
   * @param background the calls that the application makes by itself
   */
  public OutgoingCalls(
      CapturedCalls captured,
      CallsInFlight inFlight,
      List<RequestPattern> background,
      Doubts doubts) {
    this.captured = captured;
    this.inFlight = inFlight;
    this.background = List.copyOf(background);
    this.doubts = doubts;
  }

  @Override
  public Captured begin(Request request, Maker maker, String protocol) {
    Consumer<Exchange> begun = captured.beginOutgoing(owner(request, maker));
    return new Captured() {
      @Override
      public Request request() {
        return request;
      }

      @Override
      public void ended(Exchange exchange) {
        begun.accept(exchange);
      }
    };
  }

  private long owner(Request request, Maker maker) {
    if (background.stream().anyMatch(it -> it.match(request).isPresent())) {
      return 0;
    }
    CallsInFlight.Owner owner = inFlight.ownerOf(maker);
    if (!owner.doubt().isEmpty()) {
      doubts.of(request, owner.doubt());
    }
    return owner.call().orElse(0);
  }
}
