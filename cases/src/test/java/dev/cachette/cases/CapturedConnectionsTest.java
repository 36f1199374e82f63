// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** An application sees the connections that its callers make, captured or not. */
class CapturedConnectionsTest {

  private static final String OK = "HTTP/1.1 200 OK\r\ncontent-length: 2\r\n";

  @TempDir Path folder;

  /**
   * An application that follows a script; notes each request with the number of its connection.
   *
   * @param second what a connection does with its second request: {@code answers}, {@code closes}
   *     without an answer
   */
  private record Application(
      ServerSocket socket, String first, String second, List<String> requests)
      implements AutoCloseable {

    static Application open(String first, String second) throws IOException {
      ServerSocket socket = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
      Application opened = new Application(socket, first, second, new CopyOnWriteArrayList<>());
      new Thread(opened::serve).start();
      return opened;
    }

    private void serve() {
      try {
        for (int number = 1; ; number++) {
          Socket connection = socket.accept();
          int name = number;
          new Thread(() -> serve(connection, name)).start();
        }
      } catch (IOException closed) {
        // The test is over.
      }
    }

    private void serve(Socket connection, int name) {
      try (connection) {
        BufferedReader in =
            new BufferedReader(
                new InputStreamReader(connection.getInputStream(), StandardCharsets.US_ASCII));
        String does = first;
        for (String line = request(in); line != null; line = request(in)) {
          requests.add(line + " on " + name);
          String more = does.equals("says that it closes") ? "connection: close\r\n" : "";
          if (!does.equals("closes without an answer")) {
            String tail = does.equals("answers twice") ? OK + "\r\nno" : "";
            connection
                .getOutputStream()
                .write((OK + more + "\r\nok" + tail).getBytes(StandardCharsets.US_ASCII));
          }
          if (!does.equals("answers")) {
            return;
          }
          does = second;
        }
      } catch (IOException left) {
        // The client has closed the connection.
      }
    }

    private static String request(BufferedReader in) throws IOException {
      String line = in.readLine();
      for (String header = line; header != null && !header.isEmpty(); header = in.readLine()) {
        // Its headers say nothing that matters here.
      }
      return line == null ? null : line.substring(0, line.lastIndexOf(' '));
    }

    @Override
    public void close() throws IOException {
      socket.close();
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "answers | answers | GET /1 on 1, GET /2 on 1, GET /3 on 1",
        "says that it closes | answers | GET /1 on 1, GET /2 on 2, GET /3 on 3",
        "closes after it | answers | GET /1 on 1, GET /2 on 2, GET /3 on 3",
        "answers twice | answers | GET /1 on 1, GET /2 on 2, GET /3 on 3",
        "answers | closes after it | GET /1 on 1, GET /2 on 1, GET /3 on 2",
        // A request that may have been processed is repeated only if that is no difference.
        "answers | closes without an answer | GET /1 on 1, GET /2 on 1, GET /2 on 2, GET /3 on 2,"
            + " GET /3 on 3",
      })
  void callsOfOneConnectionShareOne(String first, String second, String expected) throws Exception {
    try (Application application = Application.open(first, second)) {
      assertEquals(
          List.of("ok", "ok", "ok"), called(application, HttpClient.newHttpClient(), "GET"));
      assertEquals(List.of(expected.split(", ")), application.requests());
    }
  }

  @Test
  void requestsThatAreNotIdempotentAreNotRepeated() throws Exception {
    try (Application application = Application.open("answers", "closes without an answer")) {
      List<String> got = called(application, HttpClient.newHttpClient(), "POST");

      assertEquals(List.of("POST /1 on 1", "POST /2 on 1", "POST /3 on 2"), application.requests());
      assertEquals(List.of("ok", "502", "ok"), got);
    }
  }

  @Test
  void callersDoNotShareConnections() throws Exception {
    try (Application application = Application.open("answers", "answers")) {
      try (Capture capture = capture(application)) {
        for (int caller = 1; caller <= 3; caller++) {
          HttpClient client = HttpClient.newHttpClient();
          call(client, capture.baseUrl() + "/a" + caller, "POST");
          call(client, capture.baseUrl() + "/b" + caller, "POST");
        }
      }
      assertEquals(
          List.of(
              "POST /a1 on 1",
              "POST /b1 on 1",
              "POST /a2 on 2",
              "POST /b2 on 2",
              "POST /a3 on 3",
              "POST /b3 on 3"),
          application.requests());
    }
  }

  private Capture capture(Application application) {
    return Capture.open(
        CaptureSettings.of(folder, "http://127.0.0.1:" + application.socket().getLocalPort()),
        new CaptureListener() {});
  }

  private List<String> called(Application application, HttpClient client, String method)
      throws IOException, InterruptedException {
    List<String> got = new ArrayList<>();
    try (Capture capture = capture(application)) {
      for (int number = 1; number <= 3; number++) {
        got.add(call(client, capture.baseUrl() + "/" + number, method));
      }
    }
    return got;
  }

  private static String call(HttpClient client, String url, String method)
      throws IOException, InterruptedException {
    HttpRequest request =
        HttpRequest.newBuilder(URI.create(url))
            .version(HttpClient.Version.HTTP_1_1)
            .method(method, BodyPublishers.noBody())
            .build();
    var response = client.send(request, BodyHandlers.ofString());
    return response.statusCode() == 200 ? response.body() : "" + response.statusCode();
  }
}
