// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.sun.net.httpserver.HttpServer;
import dev.cachette.verification.ClauseResult;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Bodies that are not JSON. */
class OtherFormatsTest {

  @TempDir private Path folder;

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "application/xml | <a n='1'><b>x</b></a> | <a n='2'><b>y</b></a> | ''",
        "application/xml | <a n='1'><b>x</b></a> | <a n='2'><b>y</b><c/></a> | ''",
        "application/xml | <a n='1'><b>x</b></a> | <a><b>y</b></a> | /a/@n",
        "application/xml | <a n='1'><b>x</b></a> | <a n='1'/> | /a/b",
        "application/xml | <a><b>x</b></a> | <a><b> | not XML",
        "text/plain | high at 04:10 | high at 16:35 | ''",
        "text/plain | 12 | twelve | ''",
        "application/x-www-form-urlencoded | a=1&b=2 | b=3&a=4&c=5 | ''",
        "application/x-www-form-urlencoded | a=1&b=2 | a=1 | b",
      })
  void theFieldsOfTheExampleAreNeeded(String type, String example, String actual, String expected) {
    Recording.session(
        folder,
        "harbour.FormatsTest",
        (net, contract) -> {
          net.stub("GET https://berths.example/v1/berths")
              .answer(text(example).header("content-type", type));
          new Desk().get("/v1/berths");
        });
    try (BerthService berths = new BerthService().answers(200, actual, "content-type", type)) {
      ClauseResult result =
          Contracts.in(folder).of("berths").against(berths.url()).verify().clauses().get(0);

      assertEquals(expected.isEmpty(), result.isMet(), result.explanation());
      assertTrue(result.explanation().contains(expected), result.explanation());
    }
  }

  /** Requests arrive byte by byte as the consumer sent them. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "text/plain; charset=utf-8",
        "text/plain; charset=iso-8859-1",
        "multipart/form-data; boundary=x",
        "application/octet-stream",
        "application/xml"
      })
  void requestsAreSentAsTheyWere(String type) throws Exception {
    boolean latin = type.contains("8859");
    byte[] body =
        type.startsWith("text") || type.endsWith("xml")
            ? "<a>höhe</a>".getBytes(latin ? StandardCharsets.ISO_8859_1 : StandardCharsets.UTF_8)
            : ("--x\r\ncontent-disposition: form-data; name=\"f\"; filename=\"f\"\r\n\r\n"
                    + "\u0000\u00ff\u00fe\r\n--x--\r\n")
                .getBytes(StandardCharsets.ISO_8859_1);
    Recording.session(
        folder,
        "harbour.FormatsTest",
        (net, contract) -> {
          net.stub("POST https://berths.example/v1/berths").answer(status(204));
          new Desk()
              .send(
                  HttpRequest.newBuilder(URI.create(Desk.BERTHS + "/v1/berths"))
                      .header("content-type", type)
                      .header("x-request-id", "3f0c1d52-8a55-4f1e-9a53-6f2f1c7d0e11")
                      .header("idempotency-key", java.util.UUID.randomUUID().toString())
                      .POST(BodyPublishers.ofByteArray(body))
                      .build());
        });

    AtomicReference<byte[]> received = new AtomicReference<>();
    AtomicReference<String> key = new AtomicReference<>();
    HttpServer server =
        HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    server.createContext(
        "/",
        exchange -> {
          received.set(exchange.getRequestBody().readAllBytes());
          key.set(exchange.getRequestHeaders().getFirst("idempotency-key"));
          exchange.sendResponseHeaders(204, -1);
          exchange.close();
        });
    server.start();
    try {
      assertTrue(
          Contracts.in(folder)
              .of("berths")
              .against("http://localhost:" + server.getAddress().getPort())
              .verify()
              .isMet());
    } finally {
      server.stop(0);
    }

    assertArrayEquals(body, received.get());
    assertEquals("00000000-0000-4000-8000-000000000000", key.get());
  }

  @Test
  void oneProviderHasOneOrigin() {
    Recording.session(
        folder,
        "harbour.FirstTest",
        (net, contract) -> {
          net.stub("GET https://berths.example/v1/berths").answer(json("{}"));
          new Desk().get("/v1/berths");
        });

    RuntimeException refusal =
        org.junit.jupiter.api.Assertions.assertThrows(
            RuntimeException.class,
            () ->
                Recording.session(
                    folder,
                    "harbour.SecondTest",
                    (net, contract) ->
                        Contracts.record(net, "harbour-desk", "berths", "https://quays.example")));

    assertTrue(refusal.getMessage().contains("is recorded with https://"), refusal.getMessage());
  }
}
