// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static dev.cachette.Factories.bytes;
import static org.junit.jupiter.api.Assertions.assertArrayEquals;
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
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.opentest4j.AssertionFailedError;

/** gRPC, which is HTTP/2: its calls are seen and explained, and answered by bytes. */
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

  @ParameterizedTest(name = "{0}")
  @MethodSource("channels")
  void aUnaryCallIsAnsweredByBytesAndATrailer(String name, ManagedChannelBuilder<?> builder)
      throws Exception {
    ManagedChannel channel = builder.build();
    try (Cachette net = Cachette.open()) {
      net.stub("POST /harbour.Berths/Book")
          .answer(bytes("application/grpc", message("berth 7")).trailer("grpc-status", "0"));

      String answer =
          ClientCalls.blockingUnaryCall(
              channel,
              BOOK,
              CallOptions.DEFAULT.withDeadlineAfter(30, TimeUnit.SECONDS),
              "Kittiwake");

      assertEquals("berth 7", answer);
      assertArrayEquals(message("Kittiwake"), net.calls().only().body().bytes());
    } finally {
      channel.shutdownNow().awaitTermination(20, TimeUnit.SECONDS);
    }
  }

  /** A message is preceded by a flag for compression, and its length in four bytes. */
  private static byte[] message(String text) {
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    return ByteBuffer.allocate(5 + bytes.length)
        .put((byte) 0)
        .putInt(bytes.length)
        .put(bytes)
        .array();
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
