// SPDX-License-Identifier: Apache-2.0
package dev.cachette.sweep.result;

/**
 * The faults of a sweep, in the order of its columns. Those of JSON are derived from the response
 * that the call gets without a fault, and are left out for other responses.
 */
public enum SweepFault {
  /** The host name cannot be resolved. */
  UNKNOWN_HOST("unknown host", "host", Effect.NOT_SENT),
  /** Nothing listens on the port. */
  CONNECTION_REFUSED("connection refused", "refu", Effect.NOT_SENT),
  /** The connection is neither accepted nor refused. */
  CONNECT_TIMEOUT("connect timeout", "conn", Effect.NOT_SENT),
  /** The request arrives, and no response comes. */
  NO_RESPONSE("no response", "noRe", Effect.LOST),
  /** The request arrives, and the connection is reset. */
  CONNECTION_RESET("connection reset", "rese", Effect.LOST),
  /** The connection is reset in the middle of the body. */
  RESET_MID_BODY("reset in the body", "midB", Effect.LOST),
  /** The body is shorter than its content length. */
  TRUNCATED("truncated body", "trun", Effect.LOST),
  /** Status 429 with {@code retry-after: 0} (RFC 6585). */
  TOO_MANY_REQUESTS("status 429", "429", Effect.REJECTED),
  /** Status 500 as problem details (RFC 9457). */
  SERVER_ERROR("status 500", "500", Effect.LOST),
  /** Status 503. */
  UNAVAILABLE("status 503", "503", Effect.REJECTED),
  /** Status 401 with {@code www-authenticate}. */
  UNAUTHORIZED("status 401", "401", Effect.REJECTED),
  /** Status 404. */
  NOT_FOUND("status 404", "404", Effect.REJECTED),
  /** JSON that breaks off. */
  INVALID_JSON("invalid JSON", "json", Effect.LOST),
  /** The right status, without a body. */
  EMPTY_BODY("empty body", "empt", Effect.LOST),
  /** Each member of the JSON in turn is missing. */
  MISSING_MEMBER("missing member", "miss", Effect.CHANGED),
  /** Each member of the JSON in turn is null. */
  NULL_MEMBER("null member", "null", Effect.CHANGED),
  /** Each number of the JSON in turn is larger than a long. */
  HUGE_NUMBER("huge number", "huge", Effect.CHANGED),
  /** The body has the content type of a web page. */
  WRONG_CONTENT_TYPE("wrong content type", "type", Effect.CHANGED),
  /** The response comes late, see {@code FaultSweep.slow}. */
  SLOW("slow response", "slow", Effect.CHANGED);

  /** The effect of a fault on its call. */
  private enum Effect {
    /** The request does not arrive. */
    NOT_SENT,
    /** The service has not done what was asked for. */
    REJECTED,
    /** The service may have done it, and its response is lost. */
    LOST,
    /** There is a response, with something else in it. */
    CHANGED
  }

  private final String words;
  private final String heading;
  private final Effect effect;

  SweepFault(String words, String heading, Effect effect) {
    this.words = words;
    this.heading = heading;
    this.effect = effect;
  }

  /** Returns its column heading, of at most four characters. */
  public String heading() {
    return heading;
  }

  /** Returns true if the request does not arrive: nothing is sent. */
  public boolean isBeforeRequest() {
    return effect == Effect.NOT_SENT;
  }

  /** Returns true if its client waits for it, or for a timeout. */
  public boolean isWaitedFor() {
    return this == CONNECT_TIMEOUT || this == NO_RESPONSE || this == SLOW;
  }

  /** Returns true if the service may have done what was asked for: repeating it may do it twice. */
  public boolean mayHaveBeenProcessed() {
    return effect == Effect.LOST || effect == Effect.CHANGED;
  }

  /** Returns true if the code gets nothing that it could go on with. */
  public boolean losesResponse() {
    return effect != Effect.CHANGED;
  }

  /** Returns it in words: {@code no response}. */
  @Override
  public String toString() {
    return words;
  }
}
