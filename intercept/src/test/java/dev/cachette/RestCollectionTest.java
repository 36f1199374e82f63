// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.status;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Code that writes and reads back, with a real client. */
class RestCollectionTest {

  private static final String URL = "https://berths.example/v1/bookings";

  private final HttpClient client = HttpClient.newHttpClient();
  private Cachette net;
  private RestCollection bookings;

  @BeforeEach
  void open() {
    net = Cachette.open();
    bookings = net.collection(URL);
  }

  @AfterEach
  void close() {
    net.close();
  }

  @Test
  void createdObjectsAreFound() throws Exception {
    HttpResponse<String> created = call("POST", "", "{\"vessel\":\"Kittiwake\"}");
    call("POST", "", "{\"vessel\":\"Skua\",\"id\":7}");
    call("POST", "", "{\"vessel\":\"Tern\"}");

    assertEquals(201, created.statusCode());
    assertEquals("/v1/bookings/1", created.headers().firstValue("location").orElseThrow());
    assertEquals("{\"vessel\":\"Kittiwake\",\"id\":1}", call("GET", "/1", "").body());
    assertEquals(
        "[{\"vessel\":\"Kittiwake\",\"id\":1},{\"vessel\":\"Skua\",\"id\":7},"
            + "{\"vessel\":\"Tern\",\"id\":8}]",
        call("GET", "", "").body());
    assertEquals(409, call("POST", "", "{\"id\":7}").statusCode());
    assertEquals(3, bookings.items().size());
    bookings.calls().assertCount(6).assertAnswered();
  }

  @Test
  void objectsAreReplacedPatchedAndDeleted() throws Exception {
    bookings
        .identifiedBy("berth")
        .seed("[{\"berth\":\"B 1\",\"vessel\":{\"name\":\"Skua\",\"draught\":4}}]");

    HttpResponse<String> patched =
        call("PATCH", "/B%201", "{\"vessel\":{\"draught\":null,\"flag\":\"red\"},\"nights\":2}");
    assertEquals(
        "{\"berth\":\"B 1\",\"vessel\":{\"name\":\"Skua\",\"flag\":\"red\"},\"nights\":2}",
        patched.body());
    assertEquals(200, call("PUT", "/B%201", "{\"vessel\":\"Tern\"}").statusCode());
    assertEquals("{\"vessel\":\"Tern\",\"berth\":\"B 1\"}", call("GET", "/B%201", "").body());
    assertEquals(201, call("PUT", "/B2", "{\"berth\":\"B2\"}").statusCode());
    assertEquals(400, call("PUT", "/B2", "{\"berth\":\"B3\"}").statusCode());
    assertEquals(400, call("PATCH", "/B2", "{\"berth\":\"B3\"}").statusCode());
    assertEquals(400, call("PATCH", "/B2", "[1]").statusCode());
    assertEquals(400, call("POST", "", "no JSON").statusCode());
    assertEquals(204, call("DELETE", "/B2", "").statusCode());
    for (String method : new String[] {"GET", "DELETE", "PATCH"}) {
      HttpResponse<String> missing = call(method, "/B2", "{}");
      assertEquals(404, missing.statusCode());
      assertTrue(missing.body().contains("\"berth\":\"B2\""), missing.body());
    }
  }

  @Test
  void theListIsFilteredAndPaged() throws Exception {
    bookings.seed(
        "[{\"id\":1,\"pier\":\"north\"},{\"id\":2,\"pier\":\"south\"},"
            + "{\"id\":3,\"pier\":\"north\"},{\"id\":4,\"pier\":\"north\"}]");

    HttpResponse<String> page = call("GET", "?pier=north&limit=2", "");

    assertEquals("[{\"id\":1,\"pier\":\"north\"},{\"id\":3,\"pier\":\"north\"}]", page.body());
    assertEquals("3", page.headers().firstValue("total-count").orElseThrow());
    String link = page.headers().firstValue("link").orElseThrow();
    assertEquals("</v1/bookings?pier=north&limit=2&offset=2>; rel=\"next\"", link);
    HttpResponse<String> next = call("GET", "?pier=north&limit=2&offset=2", "");
    assertEquals("[{\"id\":4,\"pier\":\"north\"}]", next.body());
    assertTrue(next.headers().firstValue("link").isEmpty());
    assertEquals(400, call("GET", "?limit=many", "").statusCode());
    assertEquals("[]", call("GET", "?pier=west", "").body());
  }

  @Test
  void eachTestBeginsWithTheSeedAndAStubCanAnswerInItsPlace() throws Exception {
    bookings.seed("[{\"id\":1}]");
    call("DELETE", "/1", "");

    try (Cachette.Scope test = net.scope()) {
      assertEquals(1, bookings.items().size());
      net.stub("GET " + URL + "/1").answer(status(503));
      assertEquals(503, call("GET", "/1", "").statusCode());
    }
    assertThrows(IllegalArgumentException.class, () -> bookings.seed("{}"));
    assertThrows(IllegalArgumentException.class, () -> bookings.seed("[1]"));
    assertThrows(IllegalArgumentException.class, () -> bookings.seed("["));
    assertThrows(IllegalArgumentException.class, () -> bookings.identifiedBy(""));
  }

  /** RFC 9110, sections 13.1.1, 13.1.2 and 8.8.3. */
  @Test
  void withEtagsConditionsOfRequestsAreHonoured() throws Exception {
    bookings.withEtags();
    HttpResponse<String> created = call("POST", "", "{\"vessel\":\"Skua\"}");
    String first = etag(created);

    assertEquals(201, created.statusCode());
    assertEquals("/v1/bookings/1", created.headers().firstValue("location").orElseThrow());
    assertEquals(first, etag(call("GET", "/1", "")));
    assertEquals(first, etag(call("HEAD", "/1", "")));

    HttpResponse<String> unchanged = call("GET", "/1", "", "if-none-match", first);
    assertEquals(304, unchanged.statusCode());
    assertEquals("", unchanged.body());
    assertEquals(first, etag(unchanged));
    assertEquals(304, call("GET", "/1", "", "if-none-match", "\"other\", " + first).statusCode());
    assertEquals(304, call("GET", "/1", "", "if-none-match", "W/" + first).statusCode(), "weak");

    HttpResponse<String> replaced =
        call("PUT", "/1", "{\"id\":1,\"vessel\":\"Tern\"}", "if-match", first);
    assertEquals(200, replaced.statusCode());
    String second = etag(replaced);
    assertNotEquals(first, second);
    assertEquals(200, call("GET", "/1", "", "if-none-match", first).statusCode());

    for (String method : List.of("PUT", "PATCH", "DELETE")) {
      HttpResponse<String> stale = call(method, "/1", "{\"vessel\":\"Gull\"}", "if-match", first);
      assertEquals(412, stale.statusCode(), method);
      assertTrue(stale.body().contains(second.replace("\"", "\\\"")), stale.body());
    }
    assertEquals("Tern", bookings.items().get(0).path("vessel").asText());

    assertEquals(412, call("PUT", "/2", "{\"id\":2}", "if-match", "*").statusCode());
    assertEquals(412, call("PUT", "/1", "{\"id\":1}", "if-none-match", "*").statusCode());
    assertEquals(412, call("PUT", "/1", "{\"id\":1}", "if-none-match", "W/" + second).statusCode());
    assertEquals(
        200,
        call("PATCH", "/1", "{}", "if-match", "\"other\"", "if-match", second).statusCode(),
        "several fields are one list");
    assertEquals(200, call("PATCH", "/1", "{\"vessel\":\"Gull\"}", "if-match", "*").statusCode());
    assertEquals(
        204, call("DELETE", "/1", "", "if-match", etag(call("GET", "/1", ""))).statusCode());
  }

  @Test
  void withoutEtagsTheyAreIgnored() throws Exception {
    bookings.seed("[{\"id\":1}]");

    HttpResponse<String> read = call("GET", "/1", "", "if-none-match", "*");
    assertEquals(200, read.statusCode());
    assertTrue(read.headers().firstValue("etag").isEmpty());
    assertEquals(204, call("DELETE", "/1", "", "if-match", "\"x\"").statusCode());
  }

  private static String etag(HttpResponse<String> response) {
    return response.headers().firstValue("etag").orElseThrow();
  }

  private HttpResponse<String> call(String method, String path, String body, String... header)
      throws Exception {
    HttpRequest.Builder request =
        HttpRequest.newBuilder(URI.create(URL + path))
            .method(method, BodyPublishers.ofString(body));
    if (header.length > 0) {
      request.headers(header);
    }
    return Calling.send(client, request.build());
  }
}
