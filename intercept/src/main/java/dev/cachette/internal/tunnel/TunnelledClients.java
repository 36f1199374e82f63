// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tunnel;

import dev.cachette.internal.agent.Attribution.Attributed;
import dev.cachette.internal.engine.Maker;
import dev.cachette.internal.engine.TestId;
import dev.cachette.internal.misuse.PortTaken;
import java.io.IOException;
import java.net.BindException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CopyOnWriteArrayList;

/**
 * Knows the clients in other JVMs, whose agents have connected: which incoming call has made an
 * outgoing one. Thread-safe.
 */
public final class TunnelledClients implements AutoCloseable {

  private static final int BACKLOG = 16;

  private static final long PATIENCE_MILLIS = 2_000;

  private final ServerSocket accepting;
  private final Thread acceptor;
  private final List<CallerQuestions> applications = new CopyOnWriteArrayList<>();

  private TunnelledClients(ServerSocket accepting) {
    this.accepting = accepting;
    this.acceptor = TunnelEntrance.start("cachette-callers", this::accept);
  }

  /**
   * Waits for agents.
   *
   * @param port the port on this machine; 0 for a free one
   * @throws IOException if the port is taken
   */
  public static TunnelledClients open(int port) throws IOException {
    return new TunnelledClients(listening(port));
  }

  private static ServerSocket listening(int port) throws IOException {
    InetAddress here = InetAddress.getLoopbackAddress();
    try {
      return new ServerSocket(port, BACKLOG, here);
    } catch (BindException taken) {
      throw PortTaken.at(here.getHostAddress(), port, taken);
    }
  }

  /** Returns the port that agents connect to. */
  public int port() {
    return accepting.getLocalPort();
  }

  /** Returns true if an agent is connected. */
  public boolean isAny() {
    return !applications.isEmpty();
  }

  private void accept() {
    while (!accepting.isClosed()) {
      try {
        Socket connection = accepting.accept();
        applications.add(new CallerQuestions(connection));
      } catch (IOException closed) {
        // The loop ends if this socket is closed.
      }
    }
  }

  /** A question to one application. */
  private interface Question {
    void ask(CallerQuestions application) throws IOException;
  }

  private void askAll(Question question) {
    for (CallerQuestions application : applications) {
      try {
        question.ask(application);
      } catch (IOException ended) {
        leave(application);
      }
    }
  }

  private void leave(CallerQuestions application) {
    applications.remove(application);
    try {
      application.close();
    } catch (IOException closed) {
      // It has ended.
    }
  }

  /**
   * Returns who made the request that is on a connection from this port now, or on its HTTP/2
   * stream; unknown for the streams of most clients.
   *
   * @param stream the number of the stream; 0 without
   */
  public Maker at(int port, int stream) {
    for (CallerQuestions application : applications) {
      try {
        Optional<Attributed> found = application.at(port, stream);
        if (found.isPresent()) {
          return maker(found.get());
        }
      } catch (IOException ended) {
        leave(application);
      }
    }
    return Maker.UNKNOWN;
  }

  private static Maker maker(Attributed known) {
    return new Maker(
        new TestId(known.number(), "", false),
        known.evidence(),
        Optional.of(known.thread()),
        List::of);
  }

  /** A connection from a port to an application carries a call. */
  public void carries(int port, long call) {
    askAll(application -> application.carries(port, call));
  }

  /** A connection from a port to an application carries no call any more. */
  public void carriesNone(int port) {
    askAll(application -> application.carriesNone(port));
  }

  /** Ends it. Then its port is free: the system keeps it for a thread that still waits there. */
  @Override
  public void close() throws IOException {
    accepting.close();
    try {
      acceptor.join(PATIENCE_MILLIS);
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
    }
    applications.forEach(this::leave);
  }
}
