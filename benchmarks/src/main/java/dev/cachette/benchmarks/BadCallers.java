// SPDX-License-Identifier: Apache-2.0
package dev.cachette.benchmarks;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.StandardSocketOptions;
import java.net.URI;
import java.nio.ByteBuffer;
import java.nio.channels.SocketChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.locks.LockSupport;

/**
 * Callers that a server must tolerate: they send half a request and wait; send requests and read
 * nothing; send bytes that are not HTTP; and disconnect in the middle, over and over.
 */
final class BadCallers {

  private static final int EACH = 125;
  private static final String HALF =
      "POST /v1/bookings HTTP/1.1\r\nhost: berths.example\r\ncontent-length: 1000\r\n\r\n{";
  private static final String WHOLE =
      "GET /v1/stations/marrow/chart HTTP/1.1\r\nhost: tides.example\r\n\r\n";

  private BadCallers() {}

  /**
   * Calls a server until it is killed.
   *
   * @param arguments its base URL, and a file that is written when all are connected
   */
  public static void main(String[] arguments) throws IOException {
    URI url = URI.create(arguments[0]);
    InetSocketAddress server = new InetSocketAddress(url.getHost(), url.getPort());
    List<SocketChannel> open = new ArrayList<>();
    for (int at = 0; at < EACH; at++) {
      open.add(calling(server, HALF));
      open.add(calling(server, WHOLE.repeat(20)));
      open.add(calling(server, "\0\0\0\0 no HTTP \r\n"));
    }
    Files.writeString(Path.of(arguments[1]), "calling\n");
    while (true) {
      for (int at = 0; at < EACH; at++) {
        try (Socket socket = new Socket()) {
          socket.connect(server);
          socket.setSoLinger(true, 0);
          socket.getOutputStream().write(HALF.getBytes(StandardCharsets.ISO_8859_1));
        }
        // A thousand per second, so that this program does not take the others' time.
        LockSupport.parkNanos(1_000_000);
      }
    }
  }

  private static SocketChannel calling(InetSocketAddress server, String bytes) throws IOException {
    SocketChannel channel = SocketChannel.open();
    channel.setOption(StandardSocketOptions.SO_RCVBUF, 4_096);
    channel.connect(server);
    channel.configureBlocking(false);
    // What cannot be sent now is skipped: the other side does not read, as we do not.
    channel.write(ByteBuffer.wrap(bytes.getBytes(StandardCharsets.ISO_8859_1)));
    return channel;
  }
}
