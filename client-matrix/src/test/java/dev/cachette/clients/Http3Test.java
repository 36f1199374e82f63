// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import dev.cachette.Cachette;
import io.netty.bootstrap.Bootstrap;
import io.netty.channel.Channel;
import io.netty.channel.ChannelInboundHandlerAdapter;
import io.netty.channel.EventLoopGroup;
import io.netty.channel.MultiThreadIoEventLoopGroup;
import io.netty.channel.nio.NioIoHandler;
import io.netty.channel.socket.nio.NioDatagramChannel;
import io.netty.handler.codec.http3.Http3;
import io.netty.handler.codec.quic.Quic;
import io.netty.handler.codec.quic.QuicChannel;
import io.netty.handler.codec.quic.QuicSslContext;
import io.netty.handler.codec.quic.QuicSslContextBuilder;
import io.netty.util.concurrent.Future;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.DatagramChannel;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.DisabledIfSystemProperty;
import org.opentest4j.AssertionFailedError;

/** HTTP/3 is refused at once, with the reason, as nobody would answer. */
@DisabledIfSystemProperty(named = "matrix.few", matches = "true")
class Http3Test {

  private static final String REFUSED =
      """
      A connection over HTTP/3 to tides.example:443 was refused: Cachette does not intercept UDP.

      Fix: let the client use HTTP/2 or HTTP/1.1 in this test.\
      """;

  @Test
  void connectingByNettyFailsWithTheReason() throws Exception {
    assumeTrue(Quic.isAvailable());
    Cachette net = Cachette.open();
    EventLoopGroup group = new MultiThreadIoEventLoopGroup(1, NioIoHandler.newFactory());
    try {
      Future<QuicChannel> connecting = connect(group, new InetSocketAddress("tides.example", 443));

      assertTrue(connecting.await(20_000));
      assertEquals(REFUSED, connecting.cause().getMessage());
    } finally {
      group.shutdownGracefully().await();
    }
    assertReported(net);
  }

  @Test
  void sendingADatagramFailsWithTheReason() throws Exception {
    Cachette net = Cachette.open();
    try (DatagramChannel channel = DatagramChannel.open()) {
      ByteBuffer bytes = ByteBuffer.allocate(1_200);
      InetSocketAddress service = new InetSocketAddress("tides.example", 443);
      IOException refused = assertThrows(IOException.class, () -> channel.send(bytes, service));
      assertEquals(REFUSED, refused.getMessage());
    }
    assertReported(net);
  }

  @Test
  void otherDatagramsAreSent() throws Exception {
    try (Cachette net = Cachette.open();
        DatagramChannel receiver = DatagramChannel.open();
        DatagramChannel sender = DatagramChannel.open()) {
      receiver.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0));
      ByteBuffer bytes = ByteBuffer.wrap(new byte[] {4, 10});
      assertEquals(2, sender.send(bytes, receiver.getLocalAddress()));
      ByteBuffer received = ByteBuffer.allocate(16);
      receiver.receive(received);
      assertEquals(2, received.position());
    }
  }

  private static void assertReported(Cachette net) {
    String message = assertThrows(AssertionFailedError.class, net::close).getMessage();
    assertTrue(message.contains(REFUSED), message);
  }

  private static Future<QuicChannel> connect(EventLoopGroup group, InetSocketAddress service)
      throws Exception {
    QuicSslContext tls =
        QuicSslContextBuilder.forClient()
            .applicationProtocols(Http3.supportedApplicationProtocols())
            .build();
    Channel channel =
        new Bootstrap()
            .group(group)
            .channel(NioDatagramChannel.class)
            .handler(Http3.newQuicClientCodecBuilder().sslContext(tls).build())
            .bind(0)
            .sync()
            .channel();
    return QuicChannel.newBootstrap(channel)
        .handler(new ChannelInboundHandlerAdapter())
        .remoteAddress(service)
        .connect();
  }
}
