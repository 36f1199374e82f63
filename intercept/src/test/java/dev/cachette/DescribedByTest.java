// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.bytes;
import static dev.cachette.answer.Answers.status;
import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.answer.ResponseAnswer;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Calls held against a description in OpenAPI 3.0. */
class DescribedByTest {

  private static final Path FOLDER = Path.of("src/test/openapi");
  private static final String ORIGIN = "https://pilots.example:8443";

  private final HttpClient client = HttpClient.newHttpClient();
  private Cachette net;

  @BeforeEach
  void open() {
    net = Cachette.open(Settings.defaults().stubFolder(FOLDER));
    net.describedBy(ORIGIN, "pilots.openapi.yaml");
    net.stub("* " + ORIGIN + "/{+rest}").named("anything").answer(status(503));
  }

  @AfterEach
  void close() {
    net.close();
  }

  @Test
  void describedRequestsAreAnswered() throws Exception {
    for (String call : Files.readAllLines(FOLDER.resolve("taken.txt"))) {
      HttpResponse<String> response = call(call);
      assertEquals(503, response.statusCode(), () -> call + "\n" + response.body());
    }
  }

  @Test
  void requestsThatViolateTheDescriptionFailWithPathRuleAndValue() throws Exception {
    StringBuilder said = new StringBuilder();
    Path golden = FOLDER.resolve("refused.txt");
    for (String call : calls(golden)) {
      said.append(call)
          .append("\n")
          .append(checks("The request violates the API description", call(call)));
    }
    assertGolden(golden, said);
  }

  @Test
  void responsesThatViolateTheDescriptionFailWithPathRuleAndValue() throws Exception {
    StringBuilder said = new StringBuilder();
    Path golden = FOLDER.resolve("impossible.txt");
    for (String call : calls(golden)) {
      String failure =
          "The stub \"this\" (DescribedByTest.java:LINE) returns a response that violates";
      said.append(call).append("\n").append(checks(failure, answered(call)));
    }
    assertGolden(golden, said);
  }

  @Test
  void describedResponsesAreSent() throws Exception {
    for (String call : calls(FOLDER.resolve("possible.txt"))) {
      HttpResponse<String> response = answered(call);
      assertEquals(
          call.replaceAll(".* -> (\\d+).*", "$1"), "" + response.statusCode(), response::body);
    }
  }

  @Test
  void aStubMaySayThatItIsNotAsDescribed() throws Exception {
    net.stub("GET " + ORIGIN + "/v2/pilots/first").answer(text("{\"kind\":")).unchecked();

    assertEquals("{\"kind\":", call("GET /pilots/first || body").body());
  }

  @Test
  void theDescriptionBelongsToItsScopeAndOrigin() throws Exception {
    net.reset();
    net.stub("* /{+rest}").answer(status(299));
    try (Cachette.Scope test = net.scope()) {
      net.describedBy(ORIGIN, "pilots.openapi.yaml");
      assertEquals(299, Calling.get("https://pilots.example/v2/nothing").statusCode());
      assertEquals(400, call("GET /nothing").statusCode());
      assertThrows(AssertionError.class, test::close);
    }
    assertEquals(299, call("GET /nothing").statusCode());
  }

  @Test
  void anUnexpectedCallListsOtherProblems() throws Exception {
    net.reset();
    net.describedBy(ORIGIN, "pilots.openapi.yaml");

    HttpResponse<String> response = call("GET /pilots");

    assertEquals(501, response.statusCode());
    assertTrue(response.body().startsWith("Unexpected call: GET "), response.body());
    assertTrue(
        response.body().contains("The request also violates the API description: GET /pilots"));
    assertTrue(response.body().contains("header x-desk"), response.body());
    assertThrows(AssertionError.class, net::reset);
  }

  private static List<String> calls(Path file) throws IOException {
    return Files.readAllLines(file).stream().filter(line -> line.matches("[A-Z]+ /.*")).toList();
  }

  /** Returns the response to a call, by a stub that answers as it is written behind an arrow. */
  private HttpResponse<String> answered(String written) throws Exception {
    String[] parts = written.split(" -> ", 2);
    String[] answer = parts[1].split(" \\|\\| ", 2);
    List<String> head = List.of(answer[0].split(" \\| "));
    byte[] body = (answer.length < 2 ? "" : answer[1]).getBytes(StandardCharsets.UTF_8);
    ResponseAnswer given =
        (body.length == 0 ? status(200) : bytes(body)).status(Integer.parseInt(head.get(0)));
    for (String header : head.subList(1, head.size())) {
      String[] field = header.split(": ", 2);
      given = given.header(field[0], field[1]);
    }
    net.stub("* " + ORIGIN + "/v2/{+rest}").named("this").answer(given);
    String[] line = parts[0].split(" ", 2);
    String form = "content-type: application/x-www-form-urlencoded || name=Oda&rank=1";
    return call(parts[0] + " | x-desk: 1" + (line[0].equals("POST") ? " | " + form : ""));
  }

  /** Returns the explanation: of problem details (RFC 9457), title and detail. */
  private static String explanation(HttpResponse<String> response) {
    if (!response
        .headers()
        .firstValue("content-type")
        .orElse("")
        .equals("application/problem+json")) {
      return response.body();
    }
    try {
      JsonNode problem = new ObjectMapper().readTree(response.body());
      assertEquals(response.statusCode(), problem.path("status").intValue());
      assertFalse(problem.path("detail").asText().isEmpty());
      StringBuilder text = new StringBuilder(problem.path("title").asText()).append("\n\n");
      problem.path("explanation").forEach(line -> text.append(line.asText()).append('\n'));
      return text.toString();
    } catch (IOException noJson) {
      throw new AssertionError(response.body(), noJson);
    }
  }

  /** Returns what does not hold; the failure must begin as is said. */
  private static String checks(String failure, HttpResponse<String> response) {
    String text = explanation(response).replaceAll("java:\\d+", "java:LINE");
    assertEquals(failure.startsWith("The request") ? 400 : 500, response.statusCode(), text);
    assertTrue(text.startsWith(failure), text);
    return text.substring(text.indexOf("  NO "), text.indexOf("\ndescribed ")) + "\n";
  }

  /** All of it fails the test, too. */
  private void assertGolden(Path golden, CharSequence said) throws IOException {
    AssertionError failed = assertThrows(AssertionError.class, net::reset);
    assertTrue(failed.getMessage().contains("the API description"), failed.getMessage());
    if (Boolean.getBoolean("guide.refresh")) {
      Files.writeString(golden, said);
    }
    assertEquals(Files.readString(golden), said.toString());
  }

  /** Returns a call as it stands in a file: {@code GET /path | header: value || body}. */
  private HttpResponse<String> call(String written) throws IOException, InterruptedException {
    String[] parts = written.split(" \\|\\| ", 2);
    List<String> head = List.of(parts[0].split(" \\| "));
    String[] line = head.get(0).split(" ", 2);
    HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(ORIGIN + "/v2" + line[1]));
    for (String header : head.subList(1, head.size())) {
      String[] field = header.split(": ", 2);
      request.header(field[0], field[1]);
    }
    String body = parts.length < 2 ? "" : parts[1].replace("\\r\\n", "\r\n");
    request.method(
        line[0], body.isEmpty() ? BodyPublishers.noBody() : BodyPublishers.ofString(body));
    return Calling.send(client, request.build());
  }
}
