package dev.cachette.internal.stub;

import dev.cachette.answer.Trouble;
import dev.cachette.cassette.Exchange;
import java.io.IOException;

/** A real service that gave no answer. */
public final class RealServiceFailed extends IOException {

  private static final long serialVersionUID = 1;

  private final transient Exchange exchange;

  /**
   * With what came of the request.
   *
   * @param exchange what went wrong, as it can be replayed
   */
  public RealServiceFailed(Exchange exchange, Throwable cause) {
    super(cause.toString(), cause);
    this.exchange = exchange;
  }

  /** What came of the request. */
  public Exchange exchange() {
    return exchange;
  }

  /** What went wrong. */
  Trouble.Kind kind() {
    return exchange.trouble().orElse(Trouble.Kind.CONNECTION_RESET);
  }
}
