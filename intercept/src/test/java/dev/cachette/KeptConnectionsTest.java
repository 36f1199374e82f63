// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.text;
import static java.nio.charset.StandardCharsets.US_ASCII;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javax.net.ssl.SSLSocketFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Connections that a client keeps from one session to the next, which serves them. */
@Timeout(60)
class KeptConnectionsTest {

  private static final String HEAD =
      "POST /v1/berths HTTP/1.1\r\nHost: kept.example\r\nContent-Length: 2\r\n\r\n";

  @ParameterizedTest
  @ValueSource(strings = {"http", "https"})
  void theNextSessionServesThem(String scheme) throws Exception {
    Socket kept = null;
    for (int session = 0; session < 5; session++) {
      try (Cachette net = session(scheme, "session " + session)) {
        kept = kept == null ? connect(scheme) : kept;
        for (int call = 0; call < 3; call++) {
          assertEquals("session " + session, post(kept, HEAD + "{}"));
        }
        assertEquals(3, net.calls("POST " + scheme + "://kept.example/v1/berths").count());
      }
    }
    kept.close();
  }

  @Test
  void eachOfManyIsServed() throws Exception {
    List<Socket> kept = new ArrayList<>();
    try (Cachette net = session("http", "first")) {
      for (int number = 0; number < 100; number++) {
        kept.add(connect("http"));
        assertEquals("first", post(kept.get(number), HEAD + "{}"));
      }
    }
    try (Cachette net = session("http", "second")) {
      for (Socket each : kept) {
        assertEquals("second", post(each, HEAD + "{}"));
        each.close();
      }
    }
  }

  /** To different hosts, which are different ports of ours, a client may use one port twice. */
  @Test
  void twoFromTheSamePortAreAnsweredOrClosed() throws Exception {
    List<Socket> kept = new ArrayList<>();
    try (Cachette net = session("http", "first");
        Socket port = new Socket()) {
      port.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0));
      int free = port.getLocalPort();
      port.close();
      for (String host : List.of("kept.example", "other.example")) {
        Socket socket = new Socket();
        socket.setReuseAddress(true);
        socket.setSoTimeout(20_000);
        socket.bind(new InetSocketAddress(InetAddress.getLoopbackAddress(), free));
        socket.connect(new InetSocketAddress(host, 80));
        net.stub("POST http://" + host + "/v1/berths").answer(text("first"));
        assertEquals("first", post(socket, HEAD + "{}"));
        kept.add(socket);
      }
    }
    try (Cachette net = session("http", "second")) {
      net.stub("POST http://other.example/v1/berths").answer(text("second"));
      int answered = 0;
      for (Socket each : kept) {
        try {
          assertEquals("second", post(each, HEAD + "{}"));
          answered++;
        } catch (SocketTimeoutException hangs) {
          throw hangs;
        } catch (IOException closed) {
          // As all of them were without a next session.
        }
      }
      assertEquals(1, answered);
    }
  }

  @ParameterizedTest
  @ValueSource(strings = {"http", "https"})
  void theyAreClosedIfTheyAreUsedBetweenSessions(String scheme) throws Exception {
    Socket kept;
    try (Cachette net = session(scheme, "first")) {
      kept = connect(scheme);
      assertEquals("first", post(kept, HEAD + "{}"));
    }
    assertThrows(IOException.class, () -> post(kept, HEAD + "{}"));
    try (Cachette net = session(scheme, "second")) {
      assertThrows(IOException.class, () -> post(kept, HEAD + "{}"));
    }
  }

  @Test
  void aReadWithTimeoutFindsTheEnd() throws Exception {
    Socket kept;
    try (Cachette net = session("http", "first")) {
      kept = connect("http");
      assertEquals("first", post(kept, HEAD + "{}"));
    }
    kept.setSoTimeout(10_000);
    assertEquals(-1, kept.getInputStream().read());
  }

  @Test
  void oneThatIsAskedForACertificateIsNew() throws Exception {
    Socket kept;
    try (Cachette net = session("https", "first")) {
      kept = connect("https");
      assertEquals("first", post(kept, HEAD + "{}"));
    }
    try (Cachette net = Cachette.open(settings().requestClientCertificates(true))) {
      assertThrows(IOException.class, () -> post(kept, HEAD + "{}"));
    }
  }

  /** The rest of a head is read as well; what is known of a request belongs to its session. */
  @ParameterizedTest
  @CsvSource({"20, second", "67, closed", "68, closed"})
  void aPartOfARequest(int sent, String expected) throws Exception {
    String request = HEAD + "{}";
    Socket kept;
    try (Cachette net = session("http", "first")) {
      kept = connect("http");
      assertEquals("first", post(kept, request));
      kept.getOutputStream().write(request.substring(0, sent).getBytes(US_ASCII));
    }
    String outcome;
    try (Cachette net = session("http", "second")) {
      outcome = post(kept, request.substring(sent));
    } catch (IOException closed) {
      outcome = "closed";
    }
    assertEquals(expected, outcome);
  }

  private static Cachette session(String scheme, String answer) {
    Cachette net = Cachette.open(settings());
    net.stub("POST " + scheme + "://kept.example/v1/berths").answer(text(answer));
    return net;
  }

  private static Settings settings() {
    return Settings.defaults().unusedStubs(UnusedStubs.IGNORE);
  }

  private static Socket connect(String scheme) throws IOException {
    return scheme.equals("https")
        ? SSLSocketFactory.getDefault().createSocket("kept.example", 443)
        : new Socket("kept.example", 80);
  }

  /** Returns the body of the response. */
  private static String post(Socket socket, String bytes) throws IOException {
    socket.getOutputStream().write(bytes.getBytes(US_ASCII));
    BufferedReader in =
        new BufferedReader(new InputStreamReader(socket.getInputStream(), US_ASCII));
    int length = 0;
    for (String line = in.readLine(); !"".equals(line); line = in.readLine()) {
      if (line == null) {
        throw new IOException("the connection is closed");
      }
      if (line.toLowerCase(Locale.ROOT).startsWith("content-length:")) {
        length = Integer.parseInt(line.substring("content-length:".length()).strip());
      }
    }
    char[] body = new char[length];
    return new String(body, 0, Math.max(0, in.read(body)));
  }
}
