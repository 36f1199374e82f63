package dev.cachette.internal.wire;

import dev.cachette.internal.stub.Responder;
import dev.cachette.internal.tls.ServerTls;
import io.netty.buffer.AdaptiveByteBufAllocator;
import io.netty.buffer.ByteBufAllocator;
import io.netty.buffer.UnpooledByteBufAllocator;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BiPredicate;
import org.jspecify.annotations.Nullable;

/**
 * The server that intercepted connections arrive at: one listener on the loopback for each
 * destination, so that the destination of a connection is known without asking what it carries.
 */
public final class WireServer implements AutoCloseable {

  private final Engine engine;
  private final Workers workers = new Workers();
  private final Site site;
  private final boolean busy;
  private @Nullable ByteBufAllocator memory;
  private final AtomicInteger numbers = new AtomicInteger();
  private final Map<Destination, Listener> listeners = new ConcurrentHashMap<>();

  /** Guarded by {@link #listeners}, as everything that adds or removes one is. */
  private boolean closed;

  private @Nullable Destination shared;

  /**
   * A server that listens nowhere yet.
   *
   * @param maxRequestBody how many bytes of a request's body are held in memory at most
   * @param busy whether it serves many callers for long, for whom memory is worth to be kept
   * @param threads how many threads serve them
   */
  public WireServer(
      Responder responder,
      Encounters encounters,
      ServerTls tls,
      int maxRequestBody,
      boolean busy,
      int threads) {
    this.busy = busy;
    this.site = new Site(responder, encounters, tls, workers, new Transmissions(), maxRequestBody);
    this.engine = new Engine(threads);
  }

  /**
   * Where connections to this destination shall go; it listens when this returns.
   *
   * @throws IOException if no port is free, or the server is closed
   */
  public InetSocketAddress listenerFor(String host, int port) throws IOException {
    return addressOf(Destination.of(host, port));
  }

  /**
   * Where calls by plain HTTP are taken for calls to this origin.
   *
   * @throws IOException if no port is free, or the server is closed
   */
  public InetSocketAddress listenerStandingFor(String scheme, String host, int port)
      throws IOException {
    return addressOf(Destination.standingFor(scheme, host, port));
  }

  /**
   * As {@link #listenerStandingFor(String, String, int)}, at an address of one's own.
   *
   * @throws IOException if the port is not free, or the server is closed
   */
  public InetSocketAddress listenerStandingFor(
      String scheme, String host, int port, InetSocketAddress wanted) throws IOException {
    return listen(Destination.standingFor(scheme, host, port), wanted).address();
  }

  /**
   * Where calls arrive that are meant for this very address, or for the host that they name, or
   * that take us for their proxy.
   *
   * @param wanted the address to listen at
   * @throws IOException if the port is not free, or the server is closed
   */
  public InetSocketAddress sharedListener(InetSocketAddress wanted) throws IOException {
    synchronized (listeners) {
      if (shared == null) {
        requireOpen();
        Listener listener = Listener.bind(wanted);
        InetSocketAddress address = listener.address();
        shared = Destination.shared(address.getAddress().getHostAddress(), address.getPort());
        serve(shared, listener);
      }
      return listeners.get(shared).address();
    }
  }

  /**
   * Ends the connections, not the listeners, of the destinations that the predicate names, so that
   * their clients make new ones.
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
    if (!ending.isEmpty()) {
      engine.executeAndWait(loop -> ending.forEach(Listener::hangUp));
    }
  }

  /** Breaks off the replies that are still being sent to tests that have ended. */
  public void endWhatIsOver() {
    // A call may be in the log, and its reply not yet begun: so the engine is asked in any case.
    if (!listeners.isEmpty()) {
      engine.executeAndWait(loop -> site.transmissions().endThoseThatAreOver());
    }
  }

  /** Whether a call to this host and port would come back to us. */
  public boolean listensAt(String host, int port) {
    synchronized (listeners) {
      return listeners.values().stream()
          .map(Listener::address)
          .anyMatch(
              it ->
                  it.getPort() == port
                      && (host.equals("localhost")
                          || it.getAddress().isAnyLocalAddress()
                          || it.getAddress().getHostAddress().equals(host)));
    }
  }

  /** Its engine, for calls to real services; it must not be made to wait. */
  public Engine engine() {
    return engine;
  }

  private void endAll() {
    List<Listener> ending;
    synchronized (listeners) {
      ending = List.copyOf(listeners.values());
      listeners.clear();
    }
    engine.executeAndWait(
        loop -> {
          site.transmissions().endAll();
          ending.forEach(Listener::end);
        });
  }

  private InetSocketAddress addressOf(Destination destination) throws IOException {
    Listener known = listeners.get(destination);
    return known != null ? known.address() : listen(destination, Listener.ANYWHERE).address();
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
                  !entry.getKey().isOurs()
                      && ended.test(entry.getKey().host(), entry.getKey().port())
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
    endAll();
    try (engine) {
      workers.close();
    }
  }

  private Listener listen(Destination destination, InetSocketAddress wanted) throws IOException {
    synchronized (listeners) {
      requireOpen();
      Listener listener = listeners.get(destination);
      if (listener == null) {
        listener = Listener.bind(wanted);
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
                loop, engine.all(), memory(), () -> new Sniffer(destination, site), numbers));
  }

  /** On the engine's thread: its classes take their time to load. */
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
