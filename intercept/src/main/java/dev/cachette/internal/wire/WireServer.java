// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import dev.cachette.internal.engine.Responder;
import dev.cachette.internal.tls.ServerTls;
import io.netty.buffer.AdaptiveByteBufAllocator;
import io.netty.buffer.ByteBufAllocator;
import io.netty.buffer.UnpooledByteBufAllocator;
import io.netty.channel.Channel;
import io.netty.channel.ChannelPipeline;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.BiPredicate;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * The server that redirected connections arrive at: one loopback listener per destination, so that
 * the destination of a connection is known whatever it carries.
 */
public final class WireServer implements AutoCloseable {

  /** The longest wait for clients to notice that their connections are closed. */
  private static final Duration PATIENCE = Duration.ofSeconds(1);

  /** The longest wait for decisions at the end. */
  private static final Duration DECIDING = Duration.ofMillis(500);

  private final Engine engine;
  private final Workers workers = new Workers();
  private final Site site;
  private final boolean busy;
  private @Nullable ByteBufAllocator memory;
  private final AtomicInteger numbers = new AtomicInteger();
  private final Map<Destination, Listener> listeners = new ConcurrentHashMap<>();

  /** Guarded by {@link #listeners}, like everything that adds or removes one. */
  private boolean closed;

  private @Nullable Destination shared;

  /**
   * Creates a server without listeners.
   *
   * @param maxRequestBody the maximum size of a request body in memory, in bytes
   * @param busy whether it serves many callers for a long time, for whom pooled memory pays
   * @param threads the number of threads that serve them
   */
  public WireServer(
      Responder responder,
      HandshakePolicy encounters,
      ServerTls tls,
      int maxRequestBody,
      boolean busy,
      int threads) {
    this.busy = busy;
    this.site =
        new Site(
            responder,
            encounters,
            tls,
            workers,
            new Transmissions(),
            maxRequestBody,
            new AtomicLong(),
            new AtomicReference<>(ClientHooks.UNKNOWN),
            this::readConnections);
    this.engine = new Engine(threads);
  }

  /** Sets what knows the clients; before the first connection. */
  public void knowClientsBy(ClientHooks clients) {
    site.clients().set(clients);
  }

  /**
   * Prepares for connections to a host over TLS, on the engine's thread, while the caller goes on.
   */
  public void expectTls(String host) {
    engine.execute(loop -> site.tls().prepare(host));
  }

  /** Serves the connections that clients have kept from the session before. */
  public void serveKept() {
    for (KeptConnections.Kept kept : KeptConnections.take()) {
      if (site.clients().get().take(kept.port())) {
        if (kept.isAskedAs(site.tls().asksClients())) {
          serve(kept);
        } else {
          kept.end();
        }
      }
    }
  }

  private void serve(KeptConnections.Kept kept) {
    try {
      Listener listener = listen(kept.destination(), Listener.ANYWHERE);
      engine.execute(loop -> listener.serve(kept, engine.all(), numbers, site));
    } catch (IOException noPort) {
      kept.end();
    }
  }

  /**
   * Returns the address for connections to this destination; it accepts them when this returns.
   *
   * @param prefersHttp1 whether HTTP/1.1 is negotiated if the client offers it
   * @param blocking whether the client reads only while it waits for a response
   * @throws IOException if no port is free, or the server is closed
   */
  public InetSocketAddress listenerFor(
      String host, int port, boolean prefersHttp1, boolean blocking) throws IOException {
    return baseUrlFor(Destination.of(host, port, prefersHttp1, !blocking));
  }

  /**
   * Returns the address at which plain HTTP calls are treated as calls to this origin.
   *
   * @throws IOException if no port is free, or the server is closed
   */
  public InetSocketAddress listenerServingAs(String scheme, String host, int port)
      throws IOException {
    return baseUrlFor(Destination.servingAs(scheme, host, port));
  }

  /**
   * As {@link #listenerServingAs(String, String, int)}, at a given address.
   *
   * @throws IOException if the port is not free, or the server is closed
   */
  public InetSocketAddress listenerServingAs(
      String scheme, String host, int port, InetSocketAddress wanted) throws IOException {
    return listen(Destination.servingAs(scheme, host, port), wanted).address();
  }

  /**
   * Returns the address for calls to itself, to the host in their Host header, or through it as a
   * proxy.
   *
   * @param wanted the address to listen on
   * @throws IOException if the port is not free, or the server is closed
   */
  public InetSocketAddress sharedListener(InetSocketAddress wanted) throws IOException {
    synchronized (listeners) {
      if (shared == null) {
        requireOpen();
        Destination any = Destination.shared(wanted.getAddress().getHostAddress(), 0);
        Listener listener = Listener.bind(wanted, any);
        shared = Destination.shared(any.host(), listener.address().getPort());
        serve(shared, listener);
      }
      return listeners.get(shared).address();
    }
  }

  /**
   * Closes the connections, not the listeners, of matching destinations, so that their clients make
   * new ones.
   */
  public void hangUp(BiPredicate<String, Integer> wanted) {
    List<Listener> ending;
    synchronized (listeners) {
      ending =
          listeners.entrySet().stream()
              .filter(entry -> wanted.test(entry.getKey().host(), entry.getKey().port()))
              .map(Map.Entry::getValue)
              .toList();
    }
    closeAll(ending, Listener::hangUp);
  }

  private List<Channel> readConnections(String host, int port) {
    return listeners.entrySet().stream()
        .filter(entry -> entry.getKey().host().equals(host) && entry.getKey().port() == port)
        .flatMap(entry -> entry.getValue().readConnections())
        .toList();
  }

  /** The clock of the session was moved: clients that wait for no answer may time out. */
  public void clockMoved() {
    if (!listeners.isEmpty()) {
      engine.execute(loop -> site.transmissions().clockMoved());
    }
  }

  /** Waits until it is decided about the calls that have arrived, and gives up the rest. */
  public void awaitDecisions() {
    try {
      site.transmissions().awaitDecisions(DECIDING);
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
    }
  }

  /** Aborts replies to tests that have ended. */
  public void endWhatIsOver() {
    // A call may be logged before its reply begins: so the engine is always asked.
    if (!listeners.isEmpty()) {
      engine.executeAndWait(loop -> site.transmissions().endThoseThatAreOver());
    }
  }

  /** Returns true if a call to this host and port would come back to us. */
  public boolean listensAt(String host, int port) {
    List<InetAddress> addresses;
    synchronized (listeners) {
      addresses =
          listeners.values().stream()
              .map(Listener::address)
              .filter(it -> it.getPort() == port)
              .map(InetSocketAddress::getAddress)
              .toList();
    }
    return !addresses.isEmpty() && LocalHosts.isOneOf(host, addresses);
  }

  /** Returns its engine, for calls to real services; it must not be blocked. */
  public Engine engine() {
    return engine;
  }

  private void endAll() {
    List<Listener> ending;
    synchronized (listeners) {
      ending = List.copyOf(listeners.values());
      listeners.clear();
    }
    engine.executeAndWait(loop -> site.transmissions().endAll());
    closeAll(ending, Listener::end);
  }

  /** Closes connections, and waits until their clients have noticed. */
  private void closeAll(List<Listener> ending, Consumer<Listener> closing) {
    if (ending.isEmpty()) {
      return;
    }
    engine.executeAndWait(loop -> ending.forEach(closing));
    long deadline = System.nanoTime() + PATIENCE.toNanos();
    try {
      boolean awaited = false;
      for (Listener listener : ending) {
        awaited |= listener.awaitClients(deadline);
      }
      if (awaited) {
        // Some clients close a connection a moment before they take it out of their pool.
        engine.readWhatHasArrived();
      }
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
    }
  }

  private InetSocketAddress baseUrlFor(Destination destination) throws IOException {
    Listener known = listeners.get(destination);
    return known != null ? known.address() : listen(destination, Listener.ANYWHERE).address();
  }

  /**
   * Closes the listeners and connections of matching destinations. When this returns, they are
   * closed: a client cannot use one that it still has.
   */
  public void end(BiPredicate<String, Integer> ended) {
    List<Listener> ending = new ArrayList<>();
    synchronized (listeners) {
      listeners
          .entrySet()
          .removeIf(
              entry ->
                  !entry.getKey().isOurs()
                      && ended.test(entry.getKey().host(), entry.getKey().port())
                      && ending.add(entry.getValue()));
    }
    closeAll(ending, Listener::end);
  }

  /** Thrown when it was closed while code of a user was running, which it does not wait for. */
  public static final class Abandoned extends RuntimeException {

    private static final long serialVersionUID = 1;

    Abandoned(String what) {
      super(what);
    }
  }

  /**
   * Reads what has arrived, closes all listeners and connections, and waits until all threads have
   * ended.
   *
   * @throws Abandoned if code of a user does not end
   */
  @Override
  public void close() {
    engine.readWhatHasArrived();
    awaitDecisions();
    synchronized (listeners) {
      closed = true;
    }
    keepConnections();
    endAll();
    try (engine) {
      workers.close();
    }
  }

  /** Those of clients that would not notice that they are closed. */
  private void keepConnections() {
    listeners.forEach(
        (destination, listener) -> {
          if (!destination.isOurs() && !destination.readsWhenIdle()) {
            listener.keepConnections(destination, site.clients().get());
          }
        });
  }

  private Listener listen(Destination destination, InetSocketAddress wanted) throws IOException {
    synchronized (listeners) {
      requireOpen();
      Listener listener = listeners.get(destination);
      if (listener == null) {
        listener = Listener.bind(wanted, destination);
        serve(destination, listener);
      }
      return listener;
    }
  }

  private void serve(Destination destination, Listener listener) {
    listeners.put(destination, listener);
    engine.execute(
        loop ->
            listener.serve(
                loop, engine.all(), memory(), pipeline -> begin(pipeline, destination), numbers));
  }

  private void begin(ChannelPipeline pipeline, Destination destination) {
    pipeline.addLast(new HalfClose());
    if (busy) {
      IdleConnections.addTo(pipeline);
    }
    pipeline.addLast(new Sniffer(destination, site));
  }

  /** On the engine's thread: its classes take long to load. */
  private ByteBufAllocator memory() {
    if (!busy) {
      return UnpooledByteBufAllocator.DEFAULT;
    }
    if (memory == null) {
      memory = new AdaptiveByteBufAllocator();
    }
    return memory;
  }

  private void requireOpen() throws IOException {
    if (closed) {
      throw new IOException("the server is closed");
    }
  }
}
