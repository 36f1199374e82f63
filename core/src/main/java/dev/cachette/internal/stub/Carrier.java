package dev.cachette.internal.stub;

/**
 * What a request came by.
 *
 * @param protocol the version of HTTP: {@code HTTP/1.1}, {@code HTTP/2}
 * @param connection the number of the connection, from 1
 */
public record Carrier(String protocol, int connection) {

  /** Where it does not matter. */
  public static final Carrier ANY = new Carrier("HTTP/1.1", 1);
}
