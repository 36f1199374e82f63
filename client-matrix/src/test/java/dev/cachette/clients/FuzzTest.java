// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.ForwardProxy;
import dev.cachette.Settings;
import dev.cachette.UnexpectedCalls;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.Socket;
import java.net.SocketException;
import java.net.SocketTimeoutException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.condition.DisabledIfSystemProperty;

/**
 * Requests that were mutated at random, by a seed: 10,000 here, as many as one likes with {@code
 * -Dfuzz.requests=100000}.
 */
@DisabledIfSystemProperty(named = "matrix.few", matches = "true")
@Tag("once")
class FuzzTest {

  private static final int REQUESTS = Integer.getInteger("fuzz.requests", 10_000);
  private static final long SEED = Long.getLong("fuzz.seed", 7);
  private static final int PATIENCE_MILLIS = 20_000;

  private static final List<byte[]> SAMPLES =
      List.of(
          ascii("GET /v1/tides?day=2 HTTP/1.1\r\nHost: tides.example\r\nAccept: */*\r\n\r\n"),
          ascii(
              "POST /v1/bookings HTTP/1.1\r\nHost: b\r\nContent-Type: application/json\r\n"
                  + "Content-Length: 22\r\n\r\n{\"vessel\":\"Kittiwake\"}"),
          ascii(
              "POST /v1/bookings HTTP/1.1\r\nHost: b\r\nTransfer-Encoding: chunked\r\n"
                  + "Expect: 100-continue\r\n\r\n5\r\nhello\r\n0\r\nX-Trailer: 1\r\n\r\n"),
          ascii("CONNECT tides.example:443 HTTP/1.1\r\nHost: tides.example:443\r\n\r\n"),
          ascii(
              "GET http://tides.example/v1/feed HTTP/1.1\r\nHost: t\r\n\r\n"
                  + "HEAD /v1/tides HTTP/1.0\r\n\r\n"),
          ascii(
              "GET /v1/ws HTTP/1.1\r\nHost: t\r\nUpgrade: websocket\r\n"
                  + "Connection: Upgrade\r\n\r\n"),
          join(
              ascii("PRI * HTTP/2.0\r\n\r\nSM\r\n\r\n"),
              hex("000000040000000000"),
              hex("00000a010500000001" + "828684418a089d5c0b81")),
          hex("1603010031010000" + "2d0303" + "00".repeat(32) + "000002002f0100000200ff"));

  private static byte[] ascii(String text) {
    return text.getBytes(StandardCharsets.ISO_8859_1);
  }

  private static byte[] hex(String digits) {
    return HexFormat.of().parseHex(digits);
  }

  private static byte[] join(byte[]... parts) {
    ByteArrayOutputStream all = new ByteArrayOutputStream();
    for (byte[] part : parts) {
      all.writeBytes(part);
    }
    return all.toByteArray();
  }

  @Test
  @Timeout(3_600)
  void nothingHangsOrLeaksOrShowsItsInsides() throws Exception {
    Random random = new Random(SEED);
    Settings settings =
        Settings.defaults()
            .withoutInterception()
            .unexpectedCalls(UnexpectedCalls.WARN)
            .maxRequestBody(1 << 20)
            .maxCalls(10);
    try (Cachette net = Cachette.open(settings)) {
      net.stub("GET /v1/tides").answer(json("{\"high\":\"04:10\"}"));
      net.stub("POST /v1/bookings")
          .json("$.vessel", dev.cachette.match.Values.is("Kittiwake"))
          .answer(json("{}"));
      net.stub("GET /v1/feed").answer(stream("text/plain", "one", "two"));
      ForwardProxy address = net.proxy();
      int threads = 0;
      for (int request = 0; request < REQUESTS; request++) {
        byte[] bytes = mutated(random);
        String answer = exchange(address, bytes, request);
        assertFalse(answer.contains("\tat "), () -> "request " + bytes.length + ": " + answer);
        if (request == REQUESTS / 10) {
          threads = Thread.activeCount();
        }
      }
      assertTrue(Thread.activeCount() <= threads + 2, "more threads than after a tenth");
      try (InputStream in = URI.create(net.baseUrl() + "/v1/tides").toURL().openStream()) {
        assertEquals("{\"high\":\"04:10\"}", new String(in.readAllBytes()));
      }
    }
  }

  /** Returns what comes back until the other side closes; it closes because this side has ended. */
  private static String exchange(ForwardProxy address, byte[] bytes, int request)
      throws IOException {
    try (Socket socket = new Socket(address.host(), address.port())) {
      socket.setSoTimeout(PATIENCE_MILLIS);
      socket.getOutputStream().write(bytes);
      socket.shutdownOutput();
      return new String(socket.getInputStream().readAllBytes(), StandardCharsets.ISO_8859_1);
    } catch (SocketException reset) {
      return "";
    } catch (SocketTimeoutException hangs) {
      throw new AssertionError(
          "request "
              + request
              + " of seed "
              + SEED
              + " hangs: "
              + new String(bytes, StandardCharsets.ISO_8859_1),
          hangs);
    }
  }

  private static byte[] mutated(Random random) {
    byte[] bytes = SAMPLES.get(random.nextInt(SAMPLES.size())).clone();
    int mutations = random.nextInt(6);
    for (int mutation = 0; mutation < mutations && bytes.length > 1; mutation++) {
      bytes = mutated(bytes, random);
    }
    return bytes;
  }

  private static byte[] mutated(byte[] bytes, Random random) {
    int at = random.nextInt(bytes.length);
    int to = at + random.nextInt(bytes.length - at);
    byte[] head = Arrays.copyOf(bytes, at);
    byte[] middle = Arrays.copyOfRange(bytes, at, to);
    byte[] tail = Arrays.copyOfRange(bytes, to, bytes.length);
    switch (random.nextInt(6)) {
      case 0:
        bytes[at] ^= (byte) (1 << random.nextInt(8));
        return bytes;
      case 1:
        bytes[at] = (byte) random.nextInt(256);
        return bytes;
      case 2:
        return join(head, tail);
      case 3:
        return join(head, middle, middle, tail);
      case 4:
        byte[] noise = new byte[random.nextInt(40)];
        random.nextBytes(noise);
        return join(head, noise, tail);
      default:
        return head;
    }
  }
}
