package dev.cachette.clients;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.calls.Call;
import io.grpc.CallOptions;
import io.grpc.ManagedChannel;
import io.grpc.ManagedChannelBuilder;
import io.grpc.MethodDescriptor;
import io.grpc.Status;
import io.grpc.StatusRuntimeException;
import io.grpc.netty.shaded.io.grpc.netty.NettyChannelBuilder;
import io.grpc.okhttp.OkHttpChannelBuilder;
import io.grpc.stub.ClientCalls;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.opentest4j.AssertionFailedError;

/** gRPC, which is HTTP/2: its calls are seen and explained, though no stub speaks its language. */
class GrpcTest {

  private static final MethodDescriptor<String, String> BOOK =
      MethodDescriptor.<String, String>newBuilder()
          .setType(MethodDescriptor.MethodType.UNARY)
          .setFullMethodName("harbour.Berths/Book")
          .setRequestMarshaller(new Text())
          .setResponseMarshaller(new Text())
          .build();

  static Stream<Arguments> channels() {
    return Stream.of(
        Arguments.of("OkHttp", OkHttpChannelBuilder.forTarget("berths.example:443")),
        Arguments.of(
            "OkHttp, clear", OkHttpChannelBuilder.forTarget("berths.example:80").usePlaintext()),
        Arguments.of("Netty, shaded", NettyChannelBuilder.forTarget("berths.example:443")),
        Arguments.of(
            "Netty, shaded, clear",
            NettyChannelBuilder.forTarget("berths.example:80").usePlaintext()));
  }

  @ParameterizedTest(name = "{0}")
  @MethodSource("channels")
  void isSeenAndExplained(String name, ManagedChannelBuilder<?> builder) throws Exception {
    Cachette net = Cachette.open();
    ManagedChannel channel = builder.build();
    try {
      var failed =
          assertThrows(
              StatusRuntimeException.class,
              () ->
                  ClientCalls.blockingUnaryCall(
                      channel,
                      BOOK,
                      CallOptions.DEFAULT.withDeadlineAfter(30, TimeUnit.SECONDS),
                      "Kittiwake"));

      assertEquals(Status.Code.UNKNOWN, failed.getStatus().getCode(), failed::toString);
      assertTrue(failed.getMessage().contains("Unexpected call: "), failed::getMessage);
      Call call = net.calls().only();
      assertEquals("HTTP/2", call.protocol());
      assertEquals("/harbour.Berths/Book", call.uri().getPath());
      assertEquals("application/grpc", call.header("content-type").orElseThrow());
    } finally {
      channel.shutdownNow().awaitTermination(20, TimeUnit.SECONDS);
      assertThrows(AssertionFailedError.class, net::close);
    }
  }

  /** Text as it is, where a service would have its protocol buffers. */
  private static final class Text implements MethodDescriptor.Marshaller<String> {

    @Override
    public InputStream stream(String value) {
      return new ByteArrayInputStream(value.getBytes(StandardCharsets.UTF_8));
    }

    @Override
    public String parse(InputStream stream) {
      try {
        return new String(stream.readAllBytes(), StandardCharsets.UTF_8);
      } catch (IOException unreadable) {
        throw new UncheckedIOException(unreadable);
      }
    }
  }
}
