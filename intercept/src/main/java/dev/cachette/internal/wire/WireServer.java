package dev.cachette.internal.wire;

import dev.cachette.internal.stub.Responder;
import dev.cachette.internal.tls.ServerTls;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.BiPredicate;

/**
 * The server that intercepted connections arrive at: one listener on the loopback for each
 * destination, so that the destination of a connection is known without asking what it carries.
 */
public final class WireServer implements AutoCloseable {

  private final ServerTls tls;
  private final HttpPipeline http;
  private final Engine engine;
  private final Workers workers = new Workers();
  private final Map<Destination, Listener> listeners = new ConcurrentHashMap<>();

  /** Guarded by {@link #listeners}, as everything that adds or removes one is. */
  private boolean closed;

  /**
   * A server that listens nowhere yet.
   *
   * @param maxRequestBody how many bytes of a request's body are held in memory at most
   */
  public WireServer(Responder responder, ServerTls tls, int maxRequestBody) {
    this.tls = tls;
    this.http = new HttpPipeline(responder, workers, maxRequestBody);
    this.engine = new Engine();
  }

  /**
   * Where connections to this destination shall go; it listens when this returns.
   *
   * @throws IOException if no port is free, or the server is closed
   */
  public InetSocketAddress listenerFor(String host, int port) throws IOException {
    Destination destination = new Destination(host, port);
    Listener known = listeners.get(destination);
    return known != null ? known.address() : listen(destination).address();
  }

  /**
   * Ends the listeners and connections of the destinations that the predicate names. When this
   * returns they are closed: a client that still keeps one cannot reach us by it.
   */
  public void end(BiPredicate<String, Integer> ended) {
    List<Listener> ending = new ArrayList<>();
    synchronized (listeners) {
      listeners
          .entrySet()
          .removeIf(
              entry ->
                  ended.test(entry.getKey().host(), entry.getKey().port())
                      && ending.add(entry.getValue()));
    }
    if (!ending.isEmpty()) {
      engine.executeAndWait(loop -> ending.forEach(Listener::end));
    }
  }

  /**
   * Reads what has arrived, closes every listener and connection, and waits until all threads have
   * ended.
   */
  @Override
  public void close() {
    engine.readWhatHasArrived();
    synchronized (listeners) {
      closed = true;
    }
    end((host, port) -> true);
    try (engine) {
      workers.close();
    }
  }

  private Listener listen(Destination destination) throws IOException {
    synchronized (listeners) {
      if (closed) {
        throw new IOException("the server is closed");
      }
      Listener listener = listeners.get(destination);
      if (listener == null) {
        listener = Listener.bind();
        listeners.put(destination, listener);
        Listener bound = listener;
        engine.execute(loop -> bound.serve(loop, () -> new Sniffer(destination, tls, http)));
      }
      return listener;
    }
  }
}
