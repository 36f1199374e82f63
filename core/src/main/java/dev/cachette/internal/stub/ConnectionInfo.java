package dev.cachette.internal.stub;

/**
 * The connection of a request.
 *
 * @param protocol the HTTP version: {@code HTTP/1.1}, {@code HTTP/2}
 * @param connection the number of the connection, from 1
 */
public record ConnectionInfo(String protocol, int connection) {

  /** An unspecified connection. */
  public static final ConnectionInfo ANY = new ConnectionInfo("HTTP/1.1", 1);
}
