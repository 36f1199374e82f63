// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.bytes;
import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertEquals;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Callers that are slow or broken, as a served Cachette must bear them; others do not notice. */
class SlowCallersTest {

  private static final int EACH = 100;
  private static final int LARGE = 1 << 20;

  @Test
  void nobodyIsHeldUpByThem() throws Exception {
    List<Socket> open = new ArrayList<>();
    try (Cachette net =
        Cachette.open(
            Settings.defaults()
                .withoutInterception()
                .unexpectedCalls(UnexpectedCalls.WARN)
                .maxCalls(1_000))) {
      net.stub("GET /tides").answer(text("04:10"));
      net.stub("GET /chart").answer(bytes(new byte[LARGE]));
      String address = net.baseUrl();
      for (int at = 0; at < EACH; at++) {
        // Sends half a request, and waits.
        open.add(calling(address, "POST /tides HTTP/1.1\r\nhost: a\r\ncontent-length: 9\r\n\r\n{"));
        // Asks for much, and reads nothing of it.
        open.add(calling(address, "GET /chart HTTP/1.1\r\nhost: a\r\n\r\n"));
        open.add(calling(address, "\0\0 no HTTP \r\n\r\n"));
        hangUp(calling(address, "GET /chart HTTP/1.1\r\nhost: a\r\n\r\nGET /ch"));
      }
      net.calls("GET /chart").awaitArrival(EACH, Duration.ofSeconds(30));

      for (int at = 0; at < EACH; at++) {
        assertEquals("04:10", Calling.get(address + "/tides").body());
      }
      Socket late = open.get(0);
      late.getOutputStream().write("12345678".getBytes(StandardCharsets.ISO_8859_1));
      assertEquals('H', late.getInputStream().read(), "who is slow is answered, too");
    } finally {
      for (Socket socket : open) {
        socket.close();
      }
    }
  }

  private static Socket calling(String address, String bytes) throws IOException {
    URI url = URI.create(address);
    Socket socket = new Socket();
    socket.setReceiveBufferSize(4_096);
    socket.setSoTimeout(20_000);
    socket.connect(new InetSocketAddress(url.getHost(), url.getPort()));
    socket.getOutputStream().write(bytes.getBytes(StandardCharsets.ISO_8859_1));
    return socket;
  }

  /** Ends it by a reset. */
  private static void hangUp(Socket socket) throws IOException {
    socket.setSoLinger(true, 0);
    socket.close();
  }
}
