package dev.cachette.internal.real;

import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import dev.cachette.internal.agent.Passage;
import dev.cachette.internal.stub.RealService;
import dev.cachette.internal.uri.Hosts;
import dev.cachette.internal.wire.Engine;
import io.netty.bootstrap.Bootstrap;
import io.netty.buffer.ByteBufUtil;
import io.netty.buffer.Unpooled;
import io.netty.buffer.UnpooledByteBufAllocator;
import io.netty.channel.Channel;
import io.netty.channel.ChannelFuture;
import io.netty.channel.ChannelHandlerContext;
import io.netty.channel.ChannelInitializer;
import io.netty.channel.ChannelOption;
import io.netty.channel.ChannelPipeline;
import io.netty.channel.IoEventLoop;
import io.netty.channel.SimpleChannelInboundHandler;
import io.netty.channel.socket.nio.NioSocketChannel;
import io.netty.handler.codec.http.DefaultFullHttpRequest;
import io.netty.handler.codec.http.DefaultHttpHeadersFactory;
import io.netty.handler.codec.http.FullHttpRequest;
import io.netty.handler.codec.http.FullHttpResponse;
import io.netty.handler.codec.http.HttpClientCodec;
import io.netty.handler.codec.http.HttpHeaderNames;
import io.netty.handler.codec.http.HttpMethod;
import io.netty.handler.codec.http.HttpObjectAggregator;
import io.netty.handler.codec.http.HttpVersion;
import io.netty.handler.ssl.SslHandler;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.security.NoSuchAlgorithmException;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.SSLParameters;

/**
 * Calls real services, by HTTP/1.1 and with the JVM's trust store, one connection a call. It waits
 * on the thread that asks, which must not be the engine's.
 */
public final class RealCalls implements RealService {

  private static final int CONNECT_MILLIS = 10_000;
  private static final long PATIENCE_SECONDS = 60;
  private static final int LARGEST_BODY = 256 << 20;

  /** What is said of one connection, not of the message (RFC 9110 section 7.6.1). */
  private static final Set<String> OF_THE_CONNECTION =
      Set.of(
          "connection",
          "keep-alive",
          "proxy-connection",
          "proxy-authorization",
          "te",
          "transfer-encoding",
          "upgrade",
          "http2-settings",
          "content-length",
          "host",
          "expect");

  private final Engine engine;

  /** Calls by this engine. */
  public RealCalls(Engine engine) {
    this.engine = engine;
  }

  @Override
  public Response call(Request request) throws IOException {
    Uri uri = request.uri();
    InetAddress address = Passage.through(() -> InetAddress.getByName(uri.host()));
    CompletableFuture<Response> response = new CompletableFuture<>();
    engine
        .execute(
            loop -> connect(loop, new InetSocketAddress(address, uri.port()), request, response))
        .exceptionally(
            neverStarted -> {
              response.completeExceptionally(new IOException("the engine is closed"));
              return null;
            });
    return await(response, uri);
  }

  private static Response await(CompletableFuture<Response> response, Uri uri) throws IOException {
    try {
      return response.get(PATIENCE_SECONDS, TimeUnit.SECONDS);
    } catch (ExecutionException failed) {
      throw failed.getCause() instanceof IOException known
          ? known
          : new IOException(failed.getCause().toString(), failed.getCause());
    } catch (TimeoutException late) {
      throw new IOException(uri.origin() + " did not answer in " + PATIENCE_SECONDS + " s", late);
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted while " + uri.origin() + " was called", interrupted);
    }
  }

  private static void connect(
      IoEventLoop loop,
      InetSocketAddress address,
      Request request,
      CompletableFuture<Response> response) {
    Bootstrap bootstrap =
        new Bootstrap()
            .group(loop)
            .channel(NioSocketChannel.class)
            .option(ChannelOption.ALLOCATOR, UnpooledByteBufAllocator.DEFAULT)
            .option(ChannelOption.TCP_NODELAY, true)
            .option(ChannelOption.CONNECT_TIMEOUT_MILLIS, CONNECT_MILLIS)
            .handler(
                new ChannelInitializer<>() {
                  @Override
                  protected void initChannel(Channel channel) throws NoSuchAlgorithmException {
                    handlers(channel.pipeline(), request, response);
                  }
                });
    bootstrap
        .register()
        .addListener(
            registered -> {
              Channel channel = ((ChannelFuture) registered).channel();
              Passage.through(() -> channel.connect(address))
                  .addListener(
                      connected -> {
                        if (!connected.isSuccess()) {
                          response.completeExceptionally(connected.cause());
                        }
                      });
            });
  }

  private static void handlers(
      ChannelPipeline pipeline, Request request, CompletableFuture<Response> response)
      throws NoSuchAlgorithmException {
    Uri uri = request.uri();
    if (uri.scheme().equals("https")) {
      SSLEngine tls = SSLContext.getDefault().createSSLEngine(uri.host(), uri.port());
      tls.setUseClientMode(true);
      SSLParameters parameters = tls.getSSLParameters();
      parameters.setEndpointIdentificationAlgorithm("HTTPS");
      tls.setSSLParameters(parameters);
      pipeline.addLast(new SslHandler(tls));
    }
    pipeline.addLast(new HttpClientCodec());
    pipeline.addLast(new HttpObjectAggregator(LARGEST_BODY));
    pipeline.addLast(new OneCall(request, response));
  }

  private static FullHttpRequest toNetty(Request request) {
    Uri uri = request.uri();
    DefaultFullHttpRequest written =
        new DefaultFullHttpRequest(
            HttpVersion.HTTP_1_1,
            HttpMethod.valueOf(request.method()),
            uri.toString().substring(uri.origin().length()),
            Unpooled.wrappedBuffer(request.body().bytes()),
            DefaultHttpHeadersFactory.headersFactory().withValidation(false),
            DefaultHttpHeadersFactory.trailersFactory());
    written.headers().set(HttpHeaderNames.HOST, authority(uri));
    request.headers().stream()
        .filter(header -> !isOfTheConnection(header))
        .forEach(header -> written.headers().add(header.name(), header.value()));
    if (!request.body().isEmpty() || request.headers().first("content-length").isPresent()) {
      written.headers().set(HttpHeaderNames.CONTENT_LENGTH, request.body().size());
    }
    written.headers().set(HttpHeaderNames.CONNECTION, "close");
    return written;
  }

  private static String authority(Uri uri) {
    String host =
        Hosts.isAddress(uri.host()) && uri.host().indexOf(':') >= 0
            ? "[" + uri.host() + "]"
            : uri.host();
    return uri.port() == Uri.defaultPort(uri.scheme()) ? host : host + ":" + uri.port();
  }

  private static boolean isOfTheConnection(Header header) {
    return OF_THE_CONNECTION.contains(header.name().toLowerCase(Locale.ROOT));
  }

  /** Sends a request when it can, and takes the response. */
  private static final class OneCall extends SimpleChannelInboundHandler<FullHttpResponse> {

    private final Request request;
    private final CompletableFuture<Response> response;

    OneCall(Request request, CompletableFuture<Response> response) {
      this.request = request;
      this.response = response;
    }

    @Override
    public void channelActive(ChannelHandlerContext context) {
      context.writeAndFlush(toNetty(request));
    }

    @Override
    protected void channelRead0(ChannelHandlerContext context, FullHttpResponse received) {
      if (received.status().code() < 200) {
        return;
      }
      List<Header> headers =
          received.headers().entries().stream()
              .map(entry -> new Header(entry.getKey(), entry.getValue()))
              .filter(header -> !isOfTheConnection(header))
              .toList();
      response.complete(
          new Response(
              received.status().code(),
              Headers.of(headers),
              Body.of(ByteBufUtil.getBytes(received.content()))));
      context.close();
    }

    @Override
    public void channelInactive(ChannelHandlerContext context) {
      response.completeExceptionally(
          new IOException(request.uri().origin() + " closed the connection without an answer"));
    }

    @Override
    public void exceptionCaught(ChannelHandlerContext context, Throwable cause) {
      response.completeExceptionally(cause);
      context.close();
    }
  }
}
