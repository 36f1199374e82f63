// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import dev.cachette.clients.HarbourClient.Reply;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.net.URI;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import org.reactivestreams.Publisher;
import org.reactivestreams.Subscriber;
import org.reactivestreams.Subscription;
import software.amazon.awssdk.http.AbortableInputStream;
import software.amazon.awssdk.http.HttpExecuteRequest;
import software.amazon.awssdk.http.HttpExecuteResponse;
import software.amazon.awssdk.http.SdkHttpClient;
import software.amazon.awssdk.http.SdkHttpFullRequest;
import software.amazon.awssdk.http.SdkHttpMethod;
import software.amazon.awssdk.http.SdkHttpResponse;
import software.amazon.awssdk.http.apache.ApacheHttpClient;
import software.amazon.awssdk.http.async.AsyncExecuteRequest;
import software.amazon.awssdk.http.async.SdkAsyncHttpClient;
import software.amazon.awssdk.http.async.SdkAsyncHttpResponseHandler;
import software.amazon.awssdk.http.async.SimpleSubscriber;
import software.amazon.awssdk.http.nio.netty.NettyNioAsyncHttpClient;
import software.amazon.awssdk.http.nio.netty.SdkEventLoopGroup;
import software.amazon.awssdk.http.urlconnection.UrlConnectionHttpClient;

/** The HTTP clients that the AWS SDK can be set to. */
final class AwsClients {

  /** Shared, as it takes two seconds to end one. */
  private static final SdkEventLoopGroup LOOPS = SdkEventLoopGroup.builder().build();

  private AwsClients() {}

  /** Returns the one that many applications still have, though there is a newer. */
  @SuppressWarnings("deprecation")
  static HarbourClient apache(Protocol protocol) {
    return blocking(ApacheHttpClient.create());
  }

  static HarbourClient urlConnection(Protocol protocol) {
    return blocking(UrlConnectionHttpClient.create());
  }

  private static HarbourClient blocking(SdkHttpClient client) {
    HarbourClient calling =
        (method, url, body) -> {
          SdkHttpFullRequest request = request(method, url, body);
          HttpExecuteResponse got =
              client
                  .prepareRequest(
                      HttpExecuteRequest.builder()
                          .request(request)
                          .contentStreamProvider(request.contentStreamProvider().orElse(null))
                          .build())
                  .call();
          Optional<AbortableInputStream> content = got.responseBody();
          return Reply.of(
              got.httpResponse().statusCode(),
              content.isPresent() ? content.get().readAllBytes() : null);
        };
    return calling.closing(client);
  }

  static HarbourClient netty(Protocol protocol) {
    NettyNioAsyncHttpClient.Builder builder =
        NettyNioAsyncHttpClient.builder().eventLoopGroup(LOOPS);
    builder.protocol(
        protocol.isHttp2()
            ? software.amazon.awssdk.http.Protocol.HTTP2
            : software.amazon.awssdk.http.Protocol.HTTP1_1);
    if (protocol == Protocol.HTTP_2) {
      builder.protocolNegotiation(software.amazon.awssdk.http.ProtocolNegotiation.ALPN);
    }
    SdkAsyncHttpClient client = builder.build();
    HarbourClient calling =
        (method, url, body) -> {
          Collecting collecting = new Collecting();
          client.execute(
              AsyncExecuteRequest.builder()
                  .request(request(method, url, body))
                  .requestContentPublisher(new Content(body.orElse("")))
                  .responseHandler(collecting)
                  .build());
          return collecting.reply.get(30, TimeUnit.SECONDS);
        };
    return calling.closing(client);
  }

  private static SdkHttpFullRequest request(String method, String url, Optional<String> body) {
    SdkHttpFullRequest.Builder request =
        SdkHttpFullRequest.builder().method(SdkHttpMethod.fromValue(method)).uri(URI.create(url));
    body.map(json -> json.getBytes(StandardCharsets.UTF_8))
        .ifPresent(
            bytes ->
                request
                    .putHeader("content-type", "application/json")
                    .putHeader("content-length", Integer.toString(bytes.length))
                    .contentStreamProvider(() -> new ByteArrayInputStream(bytes)));
    return request.build();
  }

  /** A body as this client wants to be given it. */
  private record Content(String text)
      implements software.amazon.awssdk.http.async.SdkHttpContentPublisher {

    @Override
    public Optional<Long> contentLength() {
      return Optional.of((long) text.getBytes(StandardCharsets.UTF_8).length);
    }

    @Override
    public void subscribe(Subscriber<? super ByteBuffer> subscriber) {
      subscriber.onSubscribe(
          new Subscription() {
            private boolean sent;

            @Override
            public void request(long count) {
              if (!sent) {
                sent = true;
                subscriber.onNext(ByteBuffer.wrap(text.getBytes(StandardCharsets.UTF_8)));
                subscriber.onComplete();
              }
            }

            @Override
            public void cancel() {
              sent = true;
            }
          });
    }
  }

  /** Takes a response together. */
  private static final class Collecting implements SdkAsyncHttpResponseHandler {

    private final CompletableFuture<Reply> reply = new CompletableFuture<>();
    private final ByteArrayOutputStream content = new ByteArrayOutputStream();
    private volatile int status;

    @Override
    public void onHeaders(SdkHttpResponse headers) {
      status = headers.statusCode();
    }

    @Override
    public void onStream(Publisher<ByteBuffer> stream) {
      stream.subscribe(
          new SimpleSubscriber(
              bytes -> {
                byte[] copy = new byte[bytes.remaining()];
                bytes.get(copy);
                content.writeBytes(copy);
              }) {
            @Override
            public void onComplete() {
              reply.complete(Reply.of(status, content.toByteArray()));
            }

            @Override
            public void onError(Throwable failed) {
              reply.completeExceptionally(failed);
            }
          });
    }

    @Override
    public void onError(Throwable failed) {
      reply.completeExceptionally(failed);
    }
  }
}
