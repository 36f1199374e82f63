// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tunnel;

import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.IntConsumer;
import java.util.regex.Pattern;

/** The proxy of a recorder in another process, on this machine. Thread-safe. */
final class RecorderProxy {

  private static final Pattern ESTABLISHED = Pattern.compile("HTTP/1\\.1 2\\d\\d .*");

  private final int port;
  private final IntConsumer answered;
  private final boolean mayBeAbsent;

  /** The ports of the application's connections, by those of their tunnels. */
  private final Map<Integer, Integer> clients = new ConcurrentHashMap<>();

  /** The ports of the application's connections on which a request has arrived at the recorder. */
  private final Set<Integer> requested = ConcurrentHashMap.newKeySet();

  /** Connections that were made while there was no recorder. */
  private final Set<Tunnel> passedBy = ConcurrentHashMap.newKeySet();

  /**
   * Creates it for a port.
   *
   * @param mayBeAbsent whether calls go directly to their services while there is no recorder
   * @param answered receives the ports of connections of the application that get a response
   */
  RecorderProxy(int port, boolean mayBeAbsent, IntConsumer answered) {
    this.port = port;
    this.answered = answered;
    this.mayBeAbsent = mayBeAbsent;
  }

  /** Returns true if a port of this machine is its own. */
  boolean isAt(int other) {
    return other == port;
  }

  /** Returns the port of the application's connection that a tunnel is for. */
  OptionalInt clientOf(int tunnel) {
    Integer client = clients.get(tunnel);
    return client == null ? OptionalInt.empty() : OptionalInt.of(client);
  }

  /** A request has arrived at the recorder, on the application's connection from this port. */
  void requested(int client) {
    requested.add(client);
  }

  /**
   * Opens a tunnel to a destination (CONNECT, RFC 9110 section 9.3.6).
   *
   * @param client the port of the application's connection
   * @return empty if there is no recorder, and need not be one
   */
  Optional<Socket> connect(InetSocketAddress destination, int client) throws IOException {
    Socket tunnel;
    try {
      tunnel = RecorderPort.connect(port);
    } catch (ConnectException absent) {
      if (mayBeAbsent) {
        return Optional.empty();
      }
      throw absent;
    }
    clients.put(tunnel.getLocalPort(), client);
    try {
      request(tunnel, destination);
    } catch (IOException | RuntimeException refused) {
      close(tunnel);
      throw refused;
    }
    return Optional.of(tunnel);
  }

  private static void request(Socket tunnel, InetSocketAddress destination) throws IOException {
    String host = destination.getHostString();
    String authority = (host.contains(":") ? "[" + host + "]" : host) + ":" + destination.getPort();
    tunnel
        .getOutputStream()
        .write(
            ("CONNECT " + authority + " HTTP/1.1\r\nHost: " + authority + "\r\n\r\n")
                .getBytes(StandardCharsets.ISO_8859_1));
    String answer = line(tunnel.getInputStream());
    if (!ESTABLISHED.matcher(answer).matches()) {
      throw new IOException("the recorder refuses " + authority + ": " + answer);
    }
    while (!line(tunnel.getInputStream()).isEmpty()) {
      // Its headers say nothing that matters here.
    }
  }

  private static String line(InputStream in) throws IOException {
    StringBuilder line = new StringBuilder();
    for (int next = in.read(); next != '\n'; next = in.read()) {
      if (next < 0) {
        throw new EOFException("the recorder has ended");
      }
      line.append((char) next);
    }
    return line.toString().stripTrailing();
  }

  /** Closes the connection of a tunnel. */
  void close(Socket connection, Tunnel tunnel) throws IOException {
    passedBy.remove(tunnel);
    close(connection);
  }

  private void close(Socket connection) throws IOException {
    Integer client = clients.remove(connection.getLocalPort());
    if (client != null) {
      requested.remove(client);
    }
    connection.close();
  }

  /**
   * Bytes have come for the application's connection from this port: a response, if there was a
   * request. Before it they are of TLS, such as session tickets (RFC 8446 section 4.6.1), which may
   * come when the request is already on its way.
   */
  void answered(int client) {
    if (requested.contains(client)) {
      answered.accept(client);
    }
  }

  /** Notes that a tunnel goes to its service, as there is no recorder. */
  void passedBy(Tunnel tunnel) {
    passedBy.add(tunnel);
  }

  /**
   * There is a recorder now: ends idle connections that go past it; returns true if none is left.
   */
  boolean endPassedBy() {
    passedBy.forEach(Tunnel::endIfIdle);
    return passedBy.isEmpty();
  }
}
