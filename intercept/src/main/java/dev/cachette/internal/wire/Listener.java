// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import static java.util.concurrent.TimeUnit.NANOSECONDS;

import dev.cachette.internal.misuse.PortTaken;
import io.netty.bootstrap.ServerBootstrap;
import io.netty.buffer.ByteBufAllocator;
import io.netty.buffer.UnpooledByteBufAllocator;
import io.netty.channel.Channel;
import io.netty.channel.ChannelInitializer;
import io.netty.channel.ChannelOption;
import io.netty.channel.ChannelPipeline;
import io.netty.channel.EventLoopGroup;
import io.netty.channel.IoEventLoop;
import io.netty.channel.IoEventLoopGroup;
import io.netty.channel.socket.nio.NioServerSocketChannel;
import io.netty.handler.codec.http2.Http2FrameCodec;
import java.io.IOException;
import java.net.BindException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.channels.ServerSocketChannel;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * A loopback port with its connections. The connecting thread binds it, and never waits for the
 * engine; everything else runs on the engine's thread, and all engine threads serve its
 * connections.
 */
final class Listener {

  /** A free loopback port. */
  static final InetSocketAddress ANYWHERE =
      new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);

  private static final int BACKLOG = 1024;

  private final ServerSocketChannel socket;
  private final InetSocketAddress address;
  private final boolean clientsReadWhenIdle;
  private final Set<Channel> connections = ConcurrentHashMap.newKeySet();
  private @Nullable Channel accepting;
  private volatile boolean ended;

  private Listener(
      ServerSocketChannel socket, InetSocketAddress address, boolean clientsReadWhenIdle) {
    this.socket = socket;
    this.address = address;
    this.clientsReadWhenIdle = clientsReadWhenIdle;
  }

  /** Binds this address for a destination; connections wait in its queue until it is served. */
  static Listener bind(InetSocketAddress wanted, Destination destination) throws IOException {
    ServerSocketChannel socket = ServerSocketChannel.open();
    try {
      bind(socket, wanted);
      return new Listener(
          socket, (InetSocketAddress) socket.getLocalAddress(), destination.readsWhenIdle());
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
      throw PortTaken.at(wanted.getAddress().getHostAddress(), wanted.getPort(), taken);
    }
  }

  InetSocketAddress address() {
    return address;
  }

  /**
   * Starts accepting; on the engine's thread.
   *
   * @param all the threads that serve its connections
   * @param memory the allocator of its connections
   * @param first adds the first handlers of a connection
   * @param numbers counts the connections of the server
   */
  void serve(
      IoEventLoop loop,
      IoEventLoopGroup all,
      ByteBufAllocator memory,
      Consumer<ChannelPipeline> first,
      AtomicInteger numbers) {
    accepting =
        new ServerBootstrap()
            .group(loop, all)
            .channelFactory(() -> new NioServerSocketChannel(socket))
            .option(ChannelOption.ALLOCATOR, UnpooledByteBufAllocator.DEFAULT)
            .childOption(ChannelOption.ALLOCATOR, memory)
            .childOption(ChannelOption.TCP_NODELAY, true)
            .childOption(ChannelOption.ALLOW_HALF_CLOSURE, true)
            .childHandler(
                new ChannelInitializer<>() {
                  @Override
                  protected void initChannel(Channel connection) {
                    add(connection, numbers);
                    first.accept(connection.pipeline());
                    if (ended) {
                      // It was accepted earlier, and was on its way to another thread.
                      connection.close();
                    }
                  }
                })
            .register()
            .channel();
  }

  private void add(Channel connection, AtomicInteger numbers) {
    connections.add(connection);
    Peer.number(connection, numbers.incrementAndGet());
    connection.closeFuture().addListener(x -> connections.remove(connection));
  }

  /** Serves a connection of an earlier listener; on the engine's thread. */
  void serve(KeptConnections.Kept kept, EventLoopGroup all, AtomicInteger numbers, Site site) {
    all.register(kept.connection())
        .addListener(
            registered -> {
              if (registered.isSuccess()) {
                add(kept.connection(), numbers);
                kept.serve(site);
              } else {
                kept.end();
              }
            });
  }

  /** Leaves the connections that their clients keep to the next session. */
  void keepConnections(Destination destination, ClientHooks clients) {
    connections.removeIf(connection -> KeptConnections.keep(connection, destination, clients));
  }

  /** Closes the port and its connections; on the engine's thread, after {@link #serve}. */
  void end() {
    ended = true;
    accepting.close();
    hangUp();
  }

  /** Closes its connections; on the engine's thread. */
  void hangUp() {
    Set.copyOf(connections).forEach(LingeringClose::begin);
  }

  /**
   * Waits until the clients whose connections are being closed have closed them, too: until then,
   * they may send their next call on one of them. Clients that do not read an idle connection
   * notice when they use it.
   *
   * @param deadline in the time of {@link System#nanoTime()}
   * @return true if there was such a connection
   */
  boolean awaitClients(long deadline) throws InterruptedException {
    boolean awaited = false;
    for (Channel connection : readConnections().toList()) {
      connection.closeFuture().await(Math.max(0, deadline - System.nanoTime()), NANOSECONDS);
      awaited = true;
    }
    return awaited;
  }

  /** Returns the connections that their clients read when they are idle. */
  Stream<Channel> readConnections() {
    return connections.stream()
        .filter(
            connection ->
                clientsReadWhenIdle || connection.pipeline().get(Http2FrameCodec.class) != null);
  }
}
