package dev.cachette.internal.wire;

import dev.cachette.internal.stub.Responder;
import dev.cachette.internal.tls.ServerTls;
import io.netty.bootstrap.ServerBootstrap;
import io.netty.buffer.UnpooledByteBufAllocator;
import io.netty.channel.Channel;
import io.netty.channel.ChannelInitializer;
import io.netty.channel.ChannelOption;
import io.netty.channel.IoEventLoop;
import io.netty.channel.SingleThreadIoEventLoop;
import io.netty.channel.nio.NioIoHandler;
import io.netty.channel.socket.nio.NioServerSocketChannel;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.channels.ServerSocketChannel;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.function.BiPredicate;

/**
 * The server that intercepted connections arrive at: one listener on the loopback for each
 * destination, so that the destination of a connection is known without asking what it carries.
 *
 * <p>One daemon thread serves all of them. Listeners are bound on the thread that connects, before
 * its connection is made, and never wait for the server's thread.
 */
public final class WireServer implements AutoCloseable {

  private static final int BACKLOG = 1024;
  private static final long PATIENCE_SECONDS = 10;

  private final ServerTls tls;
  private final HttpPipeline http;
  private final IoEventLoop loop =
      new SingleThreadIoEventLoop(null, WireServer::thread, NioIoHandler.newFactory());
  private final Map<Destination, Listener> listeners = new ConcurrentHashMap<>();
  private final Set<Channel> connections = ConcurrentHashMap.newKeySet();

  /**
   * A server that listens nowhere yet.
   *
   * @param maxRequestBody how many bytes of a request's body are held in memory at most
   */
  public WireServer(Responder responder, ServerTls tls, int maxRequestBody) {
    this.tls = tls;
    this.http = new HttpPipeline(responder, maxRequestBody);
  }

  /**
   * Where connections to this destination shall go; it listens when this returns.
   *
   * @throws IOException if no port is free
   */
  public InetSocketAddress listenerFor(String host, int port) throws IOException {
    Destination destination = new Destination(host, port);
    Listener known = listeners.get(destination);
    if (known != null) {
      return known.address();
    }
    synchronized (listeners) {
      Listener listener = listeners.get(destination);
      if (listener == null) {
        listener = listen(destination);
        listeners.put(destination, listener);
      }
      return listener.address();
    }
  }

  /** Ends the listeners and connections of the destinations that the predicate names. */
  public void end(BiPredicate<String, Integer> ended) {
    synchronized (listeners) {
      listeners.entrySet().stream()
          .filter(entry -> ended.test(entry.getKey().host(), entry.getKey().port()))
          .toList()
          .forEach(
              entry -> {
                listeners.remove(entry.getKey());
                entry.getValue().channel().close();
                connections.stream()
                    .filter(open -> open.localAddress().equals(entry.getValue().address()))
                    .forEach(Channel::close);
              });
    }
  }

  /** Closes every listener and connection, and waits until the thread has ended. */
  @Override
  public void close() {
    end((host, port) -> true);
    connections.forEach(Channel::close);
    loop.shutdownGracefully(0, PATIENCE_SECONDS, TimeUnit.SECONDS);
    try {
      if (!loop.awaitTermination(PATIENCE_SECONDS, TimeUnit.SECONDS)) {
        throw new IllegalStateException(
            "The server's thread did not end within " + PATIENCE_SECONDS + " s.");
      }
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
    }
  }

  private Listener listen(Destination destination) throws IOException {
    ServerSocketChannel bound = ServerSocketChannel.open();
    try {
      bound.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), BACKLOG);
      InetSocketAddress address = (InetSocketAddress) bound.getLocalAddress();
      bound.configureBlocking(false);
      Channel channel =
          new ServerBootstrap()
              .group(loop)
              .channelFactory(() -> new NioServerSocketChannel(bound))
              .option(ChannelOption.ALLOCATOR, UnpooledByteBufAllocator.DEFAULT)
              .childOption(ChannelOption.ALLOCATOR, UnpooledByteBufAllocator.DEFAULT)
              .childOption(ChannelOption.TCP_NODELAY, true)
              .childHandler(new Arrival(destination))
              .register()
              .channel();
      return new Listener(address, channel);
    } catch (IOException | RuntimeException failed) {
      bound.close();
      throw failed;
    }
  }

  private static Thread thread(Runnable task) {
    // Takes nothing over from the test that happens to open us: no thread-locals, no class loader.
    Thread thread = new Thread(null, task, "cachette-wire", 0, false);
    thread.setDaemon(true);
    thread.setContextClassLoader(WireServer.class.getClassLoader());
    return thread;
  }

  private record Listener(InetSocketAddress address, Channel channel) {}

  private final class Arrival extends ChannelInitializer<Channel> {

    private final Destination destination;

    Arrival(Destination destination) {
      this.destination = destination;
    }

    @Override
    protected void initChannel(Channel connection) {
      connections.add(connection);
      connection.closeFuture().addListener(closed -> connections.remove(connection));
      connection.pipeline().addLast(new Sniffer(destination, tls, http));
    }
  }
}
