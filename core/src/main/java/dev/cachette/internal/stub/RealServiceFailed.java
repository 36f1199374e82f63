package dev.cachette.internal.stub;

import dev.cachette.answer.Fault;
import dev.cachette.cassette.Exchange;
import java.io.IOException;

/** Thrown if a real service gives no answer. */
public final class RealServiceFailed extends IOException {

  private static final long serialVersionUID = 1;

  private final transient Exchange exchange;

  /**
   * Creates an exception with the exchange.
   *
   * @param exchange the fault, as it can be replayed
   */
  public RealServiceFailed(Exchange exchange, Throwable cause) {
    super(cause.toString(), cause);
    this.exchange = exchange;
  }

  /** Returns the exchange. */
  public Exchange exchange() {
    return exchange;
  }

  /** Returns the cause. */
  Fault.Kind kind() {
    return exchange.fault().orElse(Fault.Kind.CONNECTION_RESET);
  }
}
