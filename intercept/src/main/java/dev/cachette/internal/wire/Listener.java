package dev.cachette.internal.wire;

import io.netty.bootstrap.ServerBootstrap;
import io.netty.buffer.UnpooledByteBufAllocator;
import io.netty.channel.Channel;
import io.netty.channel.ChannelHandler;
import io.netty.channel.ChannelInitializer;
import io.netty.channel.ChannelOption;
import io.netty.channel.IoEventLoop;
import io.netty.channel.socket.nio.NioServerSocketChannel;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.channels.ServerSocketChannel;
import java.util.HashSet;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * A port on the loopback, and the connections that came in by it. It is bound by the thread that is
 * about to connect, which never waits for the engine; all else happens on the engine's thread.
 */
final class Listener {

  private static final int BACKLOG = 1024;

  private final ServerSocketChannel socket;
  private final InetSocketAddress address;
  private final Set<Channel> connections = new HashSet<>();
  private @Nullable Channel accepting;

  private Listener(ServerSocketChannel socket, InetSocketAddress address) {
    this.socket = socket;
    this.address = address;
  }

  /** A listener at a free port; connections wait in its queue until it is served. */
  static Listener bind() throws IOException {
    return bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0));
  }

  /** A listener at this address. */
  static Listener bind(InetSocketAddress wanted) throws IOException {
    ServerSocketChannel socket = ServerSocketChannel.open();
    try {
      socket.bind(wanted, BACKLOG);
      return new Listener(socket, (InetSocketAddress) socket.getLocalAddress());
    } catch (IOException | RuntimeException failed) {
      socket.close();
      throw failed;
    }
  }

  InetSocketAddress address() {
    return address;
  }

  /**
   * Begins to accept; on the engine's thread.
   *
   * @param numbers counts the connections of the server
   */
  void serve(IoEventLoop loop, Supplier<ChannelHandler> firstHandler, AtomicInteger numbers) {
    accepting =
        new ServerBootstrap()
            .group(loop)
            .channelFactory(() -> new NioServerSocketChannel(socket))
            .option(ChannelOption.ALLOCATOR, UnpooledByteBufAllocator.DEFAULT)
            .childOption(ChannelOption.ALLOCATOR, UnpooledByteBufAllocator.DEFAULT)
            .childOption(ChannelOption.TCP_NODELAY, true)
            .childHandler(
                new ChannelInitializer<>() {
                  @Override
                  protected void initChannel(Channel connection) {
                    connections.add(connection);
                    Peer.number(connection, numbers.incrementAndGet());
                    connection.closeFuture().addListener(x -> connections.remove(connection));
                    connection.pipeline().addLast(firstHandler.get());
                  }
                })
            .register()
            .channel();
  }

  /** Ends the port and its connections; on the engine's thread, after {@link #serve}. */
  void end() {
    accepting.close();
    hangUp();
  }

  /** Ends its connections; on the engine's thread. */
  void hangUp() {
    Set.copyOf(connections).forEach(Channel::close);
  }
}
