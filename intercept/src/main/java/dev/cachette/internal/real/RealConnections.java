// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.real;

import dev.cachette.http.Request;
import dev.cachette.internal.agent.InterceptionBypass;
import dev.cachette.internal.engine.RealCallObserver;
import dev.cachette.internal.wire.Engine;
import io.netty.bootstrap.Bootstrap;
import io.netty.buffer.UnpooledByteBufAllocator;
import io.netty.channel.Channel;
import io.netty.channel.ChannelFuture;
import io.netty.channel.ChannelHandler;
import io.netty.channel.ChannelOption;
import io.netty.channel.IoEventLoop;
import io.netty.channel.socket.nio.NioSocketChannel;
import io.netty.handler.proxy.ProxyHandler;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.security.cert.X509Certificate;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import javax.net.ssl.SSLContext;
import org.jspecify.annotations.Nullable;

/**
 * The connections of real calls: one for each call, or one for all calls of a caller's connection.
 */
final class RealConnections {

  static final int CONNECT_MILLIS = 10_000;

  private final Engine engine;
  private final List<X509Certificate> authorities;
  private final ReusableConnections reusable = new ReusableConnections();
  private @Nullable SSLContext trust;

  RealConnections(Engine engine, List<X509Certificate> authorities) {
    this.engine = engine;
    this.authorities = authorities;
  }

  /**
   * Sends a request.
   *
   * @param http2 whether to use HTTP/2, if the service supports it
   * @param response receives the response, or the failure
   */
  void send(
      Request request,
      Route route,
      boolean http2,
      ArrivingResponse response,
      RealCallObserver observer)
      throws IOException {
    Optional<String> key =
        http2 || route.proxy().isPresent() || EngineMessages.isUpgrade(request)
            ? Optional.empty()
            : observer.callersConnection().map(number -> number + " to " + route.name());
    Sending sending = new Sending(request, route, key, response, observer);
    Optional<Channel> kept = key.flatMap(reusable::take);
    if (kept.isPresent()) {
      sending.on(kept.get());
    } else {
      sending.onNew(http2);
    }
  }

  /** One request on its way. */
  private final class Sending {

    private final Request request;
    private final Route route;

    /** The key of its connection, for later calls; empty for one of its own. */
    private final Optional<String> key;

    private final ArrivingResponse response;
    private final RealCallObserver observer;

    Sending(
        Request request,
        Route route,
        Optional<String> key,
        ArrivingResponse response,
        RealCallObserver observer) {
      this.request = request;
      this.route = route;
      this.key = key;
      this.response = response;
      this.observer = observer;
    }

    private OneCall call() {
      OneCall call =
          new OneCall(request, EngineMessages.toEngine(request, route, key.isPresent()), response);
      key.ifPresent(it -> call.keptBy(connection -> reusable.keep(it, connection)));
      return call;
    }

    void on(Channel connection) {
      if (observer.followsConnection()) {
        observer.connectedFrom(((InetSocketAddress) connection.localAddress()).getPort());
      }
      OneCall call = call();
      if (request.isIdempotent()) {
        call.repeatedBy(() -> CompletableFuture.runAsync(this::repeat));
      }
      response.whole().whenComplete((got, failed) -> closeUnlessKept(connection, response));
      connection
          .eventLoop()
          .execute(
              () -> {
                ReusableConnections.prepare(connection);
                connection.pipeline().addLast(call);
              });
    }

    private void repeat() {
      try {
        onNew(false);
      } catch (IOException unreachable) {
        response.fail(unreachable);
      }
    }

    void onNew(boolean http2) throws IOException {
      InetSocketAddress address = route.address();
      ProxyHandler tunnel = route.tunnel().isEmpty() ? null : route.tunnel().get().handler();
      Connection handlers = new Connection(call(), route, tunnel, trust(), http2, response);
      ChannelHandler first =
          observer.followsConnection() ? new AnnouncedConnection(handlers, observer) : handlers;
      engine
          .execute(loop -> connect(loop, address, first, response))
          .exceptionally(
              neverStarted -> {
                response.fail(new IOException("the engine is closed"));
                return null;
              });
    }
  }

  /** Created at first use: most sessions need none. */
  private synchronized SSLContext trust() {
    SSLContext known = trust;
    if (known == null) {
      known = RealTrust.context(authorities);
      trust = known;
    }
    return known;
  }

  private static void connect(
      IoEventLoop loop,
      InetSocketAddress address,
      ChannelHandler handlers,
      ArrivingResponse response) {
    Bootstrap bootstrap =
        new Bootstrap()
            .group(loop)
            .channel(NioSocketChannel.class)
            .option(ChannelOption.ALLOCATOR, UnpooledByteBufAllocator.DEFAULT)
            .option(ChannelOption.TCP_NODELAY, true)
            .option(ChannelOption.CONNECT_TIMEOUT_MILLIS, CONNECT_MILLIS)
            .handler(handlers);
    bootstrap
        .register()
        .addListener(
            registered -> {
              Channel channel = ((ChannelFuture) registered).channel();
              response.whole().whenComplete((got, failed) -> closeUnlessKept(channel, response));
              InterceptionBypass.through(() -> channel.connect(address))
                  .addListener(
                      connected -> {
                        if (!connected.isSuccess()) {
                          response.fail(connected.cause());
                        }
                      });
            });
  }

  private static void closeUnlessKept(Channel connection, ArrivingResponse response) {
    if (!response.isConnectionKept()) {
      connection.close();
    }
  }
}
