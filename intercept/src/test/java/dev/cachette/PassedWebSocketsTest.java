// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.cassette.RecordingMode.CREATE;
import static dev.cachette.cassette.RecordingMode.REPLAY;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.RecordingMode;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.WebSocket;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.Base64;
import java.util.Locale;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletionException;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** WebSockets are passed on to the real service while it is recorded, and refused on replay. */
@Timeout(60)
class PassedWebSocketsTest {

  private static final String ACCEPT = "258EAFA5-E914-47DA-95CA-C5AB0DC85B11";

  private static final String ENDED = "(ended)";

  @TempDir Path folder;
  private ServerSocket service;

  /** A service that sends a greeting, and every text back. */
  @BeforeEach
  void open() throws IOException {
    service = new ServerSocket(0, 10, InetAddress.getLoopbackAddress());
    Thread thread = new Thread(this::serve);
    thread.setDaemon(true);
    thread.start();
  }

  @AfterEach
  void close() throws IOException {
    service.close();
  }

  private void serve() {
    while (!service.isClosed()) {
      try (Socket accepted = service.accept()) {
        String key = key(accepted.getInputStream());
        byte[] hash =
            MessageDigest.getInstance("SHA-1")
                .digest((key + ACCEPT).getBytes(StandardCharsets.US_ASCII));
        OutputStream out = accepted.getOutputStream();
        out.write(
            ("HTTP/1.1 101 Switching Protocols\r\nUpgrade: websocket\r\nConnection: Upgrade\r\n"
                    + "Sec-WebSocket-Accept: "
                    + Base64.getEncoder().encodeToString(hash)
                    + "\r\n\r\n")
                .getBytes(StandardCharsets.US_ASCII));
        out.write(frame("welcome"));
        echo(accepted.getInputStream(), out);
      } catch (Exception ended) {
        // The client has left.
      }
    }
  }

  private static String key(InputStream in) throws IOException {
    BufferedReader lines =
        new BufferedReader(new InputStreamReader(in, StandardCharsets.US_ASCII), 1);
    String key = "";
    for (String line = lines.readLine(); !line.isEmpty(); line = lines.readLine()) {
      if (line.toLowerCase(Locale.ROOT).startsWith("sec-websocket-key:")) {
        key = line.substring(line.indexOf(':') + 1).strip();
      }
    }
    return key;
  }

  private static byte[] frame(String text) {
    byte[] frame = new byte[2 + text.length()];
    frame[0] = (byte) 0x81;
    frame[1] = (byte) text.length();
    System.arraycopy(text.getBytes(StandardCharsets.US_ASCII), 0, frame, 2, text.length());
    return frame;
  }

  /** Short text frames only (RFC 6455 section 5.2). */
  private static void echo(InputStream in, OutputStream out) throws IOException {
    while (in.read() == 0x81) {
      int length = in.read() & 0x7f;
      byte[] mask = in.readNBytes(4);
      byte[] text = in.readNBytes(length);
      for (int at = 0; at < length; at++) {
        text[at] ^= mask[at % 4];
      }
      out.write(frame(new String(text, StandardCharsets.US_ASCII)));
    }
  }

  private Cachette net(RecordingMode mode) {
    return Cachette.open(
        Settings.defaults()
            .cassetteFolder(folder)
            .cassettes(CassetteSettings.defaults().mode(mode).recordingInCi())
            .realServiceAt("http://pilots.example", "http://127.0.0.1:" + service.getLocalPort()));
  }

  private static WebSocket connect(BlockingQueue<String> heard) {
    return HttpClient.newHttpClient()
        .newWebSocketBuilder()
        .buildAsync(
            URI.create("ws://pilots.example/v1/radio"),
            new WebSocket.Listener() {
              @Override
              public CompletionStage<?> onText(WebSocket socket, CharSequence text, boolean last) {
                heard.add(text.toString());
                socket.request(1);
                return null;
              }

              @Override
              public void onError(WebSocket socket, Throwable failure) {
                heard.add(ENDED);
              }

              @Override
              public CompletionStage<?> onClose(WebSocket socket, int code, String reason) {
                heard.add(ENDED);
                return null;
              }
            })
        .join();
  }

  @Test
  void anUpgradeIsPassedOnAndRecordedAndRefusedOnReplay() throws Exception {
    try (Cachette net = net(CREATE)) {
      net.cassette("radio");
      BlockingQueue<String> heard = new LinkedBlockingQueue<>();
      WebSocket socket = connect(heard);
      assertEquals("welcome", heard.poll(20, TimeUnit.SECONDS));
      for (String word : new String[] {"Kittiwake", "Fulmar", "over"}) {
        socket.sendText(word, true).join();
        assertEquals(word, heard.poll(20, TimeUnit.SECONDS));
      }
      assertEquals(101, net.calls().only().response().status());
      socket.abort();
    }
    Cachette net = net(REPLAY);
    ActiveCassette cassette = net.cassette("radio");
    assertEquals("101", cassette.recorded().exchanges().get(0).outcome());
    assertThrows(CompletionException.class, () -> connect(new LinkedBlockingQueue<>()));
    String why = assertThrows(AssertionError.class, net::close).getMessage();
    assertTrue(why.contains("asks for a WebSocket (RFC 6455)"), why);
    assertTrue(why.contains("\"exchange 1 of radio\""), why);
  }

  @Test
  void aServiceThatEndsEndsTheClient() throws Exception {
    try (Cachette net = net(CREATE)) {
      net.cassette("radio");
      BlockingQueue<String> heard = new LinkedBlockingQueue<>();
      WebSocket socket = connect(heard);
      assertEquals("welcome", heard.poll(20, TimeUnit.SECONDS));
      // The service understands text only, and closes the connection.
      socket.sendBinary(ByteBuffer.wrap(new byte[] {1}), true).join();
      assertEquals(ENDED, heard.poll(20, TimeUnit.SECONDS));
    }
  }
}
