package dev.cachette.internal.wire;

import io.netty.bootstrap.ServerBootstrap;
import io.netty.buffer.ByteBufAllocator;
import io.netty.buffer.UnpooledByteBufAllocator;
import io.netty.channel.Channel;
import io.netty.channel.ChannelHandler;
import io.netty.channel.ChannelInitializer;
import io.netty.channel.ChannelOption;
import io.netty.channel.IoEventLoop;
import io.netty.channel.IoEventLoopGroup;
import io.netty.channel.socket.nio.NioServerSocketChannel;
import java.io.IOException;
import java.net.BindException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.channels.ServerSocketChannel;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * A port on the loopback, and the connections that came in by it. It is bound by the thread that is
 * about to connect, which never waits for the engine; all else is asked for on the engine's thread,
 * and its connections are served by all the threads there are.
 */
final class Listener {

  /** A free port of the loopback. */
  static final InetSocketAddress ANYWHERE =
      new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);

  private static final int BACKLOG = 1024;

  private final ServerSocketChannel socket;
  private final InetSocketAddress address;
  private final Set<Channel> connections = ConcurrentHashMap.newKeySet();
  private @Nullable Channel accepting;
  private volatile boolean ended;

  private Listener(ServerSocketChannel socket, InetSocketAddress address) {
    this.socket = socket;
    this.address = address;
  }

  /** A listener at this address; connections wait in its queue until it is served. */
  static Listener bind(InetSocketAddress wanted) throws IOException {
    ServerSocketChannel socket = ServerSocketChannel.open();
    try {
      bind(socket, wanted);
      return new Listener(socket, (InetSocketAddress) socket.getLocalAddress());
    } catch (IOException | RuntimeException failed) {
      socket.close();
      throw failed;
    }
  }

  private static void bind(ServerSocketChannel socket, InetSocketAddress wanted)
      throws IOException {
    try {
      socket.bind(wanted, BACKLOG);
    } catch (BindException taken) {
      throw new IOException(
          String.format(
              "%s:%d cannot be listened at: %s. Mend: choose another port, or 0 for a free one.",
              wanted.getAddress().getHostAddress(), wanted.getPort(), taken.getMessage()),
          taken);
    }
  }

  InetSocketAddress address() {
    return address;
  }

  /**
   * Begins to accept; on the engine's thread.
   *
   * @param all the threads that serve its connections
   * @param memory where its connections get their memory
   * @param numbers counts the connections of the server
   */
  void serve(
      IoEventLoop loop,
      IoEventLoopGroup all,
      ByteBufAllocator memory,
      Supplier<ChannelHandler> firstHandler,
      AtomicInteger numbers) {
    accepting =
        new ServerBootstrap()
            .group(loop, all)
            .channelFactory(() -> new NioServerSocketChannel(socket))
            .option(ChannelOption.ALLOCATOR, UnpooledByteBufAllocator.DEFAULT)
            .childOption(ChannelOption.ALLOCATOR, memory)
            .childOption(ChannelOption.TCP_NODELAY, true)
            .childHandler(
                new ChannelInitializer<>() {
                  @Override
                  protected void initChannel(Channel connection) {
                    connections.add(connection);
                    Peer.number(connection, numbers.incrementAndGet());
                    connection.closeFuture().addListener(x -> connections.remove(connection));
                    connection.pipeline().addLast(firstHandler.get());
                    if (ended) {
                      // It was accepted before, and was on its way to another thread.
                      connection.close();
                    }
                  }
                })
            .register()
            .channel();
  }

  /** Ends the port and its connections; on the engine's thread, after {@link #serve}. */
  void end() {
    ended = true;
    accepting.close();
    hangUp();
  }

  /** Ends its connections; on the engine's thread. */
  void hangUp() {
    Set.copyOf(connections).forEach(Channel::close);
  }
}
