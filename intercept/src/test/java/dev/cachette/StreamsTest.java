// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.events;
import static dev.cachette.answer.Answers.file;
import static dev.cachette.answer.Answers.stream;
import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.answer.Event;
import dev.cachette.answer.Feed;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.Iterator;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Bodies that come piece by piece. */
class StreamsTest {

  private static final String ARRIVALS = "https://berths.example/v1/arrivals";

  private Cachette net;

  @BeforeEach
  void open() {
    net = Cachette.open();
  }

  @AfterEach
  void close() {
    net.close();
  }

  @Test
  void piecesAreChunksOfTheirOwn() throws Exception {
    net.stub("GET http://berths.example/v1")
        .answer(
            stream("application/x-ndjson", "{\"berth\":1}\n", "{\"berth\":2}\n")
                .pausing(Duration.ofMillis(5))
                .status(206)
                .header("x-desk", "7"));

    String answer =
        Calling.raw(
            "berths.example", 80, "GET /v1 HTTP/1.1\r\nHost: b\r\nConnection: close\r\n\r\n");

    assertTrue(answer.startsWith("HTTP/1.1 206 "), answer);
    assertTrue(answer.contains("transfer-encoding: chunked\r\n"), answer);
    assertTrue(
        answer.endsWith("\r\n\r\nc\r\n{\"berth\":1}\n\r\nc\r\n{\"berth\":2}\n\r\n0\r\n\r\n"),
        answer);
  }

  @Test
  void eventsAreWrittenAsTheStandardWantsThem() throws Exception {
    net.stub("GET " + ARRIVALS)
        .answer(
            events(
                Event.of("Kittiwake"),
                Event.of("two\nlines").named("berthed").id("7"),
                Event.of("")));

    HttpResponse<String> response = Calling.get(ARRIVALS);

    assertEquals(
        """
        data: Kittiwake

        event: berthed
        id: 7
        data: two
        data: lines

        data:\s

        """,
        response.body());
    assertEquals("text/event-stream", response.headers().firstValue("content-type").orElseThrow());
    assertThrows(IllegalArgumentException.class, () -> Event.of("x").named("a\nb"));
  }

  @ParameterizedTest
  @EnumSource(HttpClient.Version.class)
  void theTestSendsWhenItLikes(HttpClient.Version version) throws Exception {
    Feed feed = new Feed();
    net.stub("GET " + ARRIVALS).answer(stream("text/plain", feed));
    feed.send("Kittiwake\n");

    Iterator<String> lines = lines(version).iterator();
    assertEquals("Kittiwake", lines.next());
    feed.send("Petrel\n".getBytes());
    assertEquals("Petrel", lines.next());
    assertEquals(1, feed.readers());
    feed.end();

    assertFalse(lines.hasNext());
    assertEquals(0, feed.readers());
    net.calls().await(1, Duration.ofSeconds(20));
    var late = assertThrows(IllegalStateException.class, () -> feed.send("Skua\n"));
    assertTrue(late.getMessage().contains("has ended"), late::getMessage);
  }

  @ParameterizedTest
  @EnumSource(HttpClient.Version.class)
  void theTestCanBreakOff(HttpClient.Version version) throws Exception {
    Feed feed = new Feed();
    net.stub("GET " + ARRIVALS).answer(stream("text/plain", feed));
    feed.send("Kittiwake\n");
    Iterator<String> lines = lines(version).iterator();
    assertEquals("Kittiwake", lines.next());

    feed.abort();

    assertThrows(RuntimeException.class, lines::hasNext);
  }

  @Test
  void everyCallerGetsAllOfIt() throws Exception {
    Feed feed = new Feed();
    net.stub("GET " + ARRIVALS).answer(stream("text/plain", feed));
    feed.send("Kittiwake\n");
    feed.send(Event.of("Petrel"));
    feed.end();

    for (int call = 0; call < 2; call++) {
      assertEquals("Kittiwake\ndata: Petrel\n\n", Calling.get(ARRIVALS).body());
    }
  }

  @Test
  void aFeedThatNeverEndsEndsWithTheTest() throws Exception {
    Feed feed = new Feed();
    try (Cachette.Scope test = net.scope()) {
      net.stub("GET " + ARRIVALS).answer(stream("text/plain", feed));
      feed.send("Kittiwake\n");
      assertEquals("Kittiwake", lines(HttpClient.Version.HTTP_2).iterator().next());
    }

    assertEquals(0, feed.readers());
  }

  @Test
  void fileIsSentFromTheDisk(@TempDir Path folder) throws Exception {
    byte[] chart = new byte[3_000_000];
    new Random(7).nextBytes(chart);
    Path path = Files.write(folder.resolve("bay.bin"), chart);
    net.stub("GET https://charts.example/bay").answer(file(path.toString()).streamed());
    net.stub("GET http://charts.example/bay").answer(file(path.toString()).streamed());

    for (String url : List.of("https://charts.example/bay", "http://charts.example/bay")) {
      HttpResponse<byte[]> response =
          HttpClient.newHttpClient()
              .send(HttpRequest.newBuilder(URI.create(url)).build(), BodyHandlers.ofByteArray());
      assertArrayEquals(chart, response.body());
      assertEquals("3000000", response.headers().firstValue("content-length").orElseThrow());
      HttpRequest head =
          HttpRequest.newBuilder(URI.create(url))
              .method("HEAD", HttpRequest.BodyPublishers.noBody())
              .build();
      assertEquals(
          "3000000",
          Calling.send(HttpClient.newHttpClient(), head)
              .headers()
              .firstValue("content-length")
              .orElseThrow());
    }
  }

  @Test
  void bodiesGoToAFileAsTheyArrive(@TempDir Path folder) throws Exception {
    byte[] chart = new byte[3_000_000];
    new Random(7).nextBytes(chart);
    Path path = folder.resolve("bay.bin");
    net.stub("PUT https://charts.example/bay").saveBodyTo(path.toString()).answer(text("kept"));
    net.stub("PUT http://charts.example/bay").saveBodyTo(path.toString()).answer(text("kept"));
    net.stub("POST http://charts.example/bay").answer(text("not kept"));

    for (String url : List.of("https://charts.example/bay", "http://charts.example/bay")) {
      Files.writeString(path, "old");
      HttpRequest.Builder put =
          HttpRequest.newBuilder(URI.create(url))
              .expectContinue(url.startsWith("http:"))
              .PUT(HttpRequest.BodyPublishers.ofByteArray(chart));
      assertEquals("kept", Calling.send(HttpClient.newHttpClient(), put.build()).body());
      assertArrayEquals(chart, Files.readAllBytes(path));
    }
    assertEquals("not kept", Calling.post("http://charts.example/bay", "small").body());
    assertEquals("small", net.calls().last().text());
    assertEquals("3000000", net.calls().first().header("content-length").orElseThrow());
    UnansweredStub stub = net.stub("PUT /bay");
    assertThrows(IllegalArgumentException.class, () -> stub.saveBodyTo(folder + "/none/bay.bin"));
    stub.answer(text(""));
  }

  @Test
  void streamedNeedsAFile(@TempDir Path folder) throws Exception {
    Path path = Files.writeString(folder.resolve("bay.txt"), "bay");

    assertThrows(IllegalStateException.class, () -> text("x").streamed());
    assertThrows(IllegalStateException.class, () -> file(path.toString()).gzip().streamed());
    UnansweredStub stub = net.stub("GET /bay");
    var missing =
        assertThrows(
            IllegalArgumentException.class, () -> stub.answer(file(folder + "/bay.tx").streamed()));
    assertTrue(missing.getMessage().contains("did you mean \"bay.txt\"?"), missing::getMessage);
    stub.answer(file(path.toString()).streamed());
    assertThrows(IllegalArgumentException.class, () -> stream("text/plain"));
  }

  @Test
  void aFileThatIsGoneWhenItIsCalledForFailsTheTest(@TempDir Path folder) throws Exception {
    Path path = Files.writeString(folder.resolve("bay.txt"), "bay");
    net.stub("GET http://charts.example/bay").answer(file(path.toString()).streamed());
    Files.delete(path);

    assertEquals(500, Calling.get("http://charts.example/bay").statusCode());
    var failure = assertThrows(AssertionError.class, net::close);
    assertTrue(failure.getMessage().contains("bay.txt"), failure::getMessage);
  }

  @Test
  void piecesOfAKnownLengthKeepIt() throws Exception {
    net.stub("GET http://charts.example/bay")
        .answer(text("high water").inPieces(3, Duration.ofMillis(1)));

    HttpResponse<String> response = Calling.get("http://charts.example/bay");

    assertEquals("high water", response.body());
    assertEquals("10", response.headers().firstValue("content-length").orElseThrow());
    assertEquals(10, Arrays.stream(response.body().split("")).count());
  }

  private static Stream<String> lines(HttpClient.Version version)
      throws IOException, InterruptedException {
    HttpClient client = HttpClient.newBuilder().version(version).build();
    return client
        .send(HttpRequest.newBuilder(URI.create(ARRIVALS)).build(), BodyHandlers.ofLines())
        .body();
  }
}
