// SPDX-License-Identifier: Apache-2.0
package dev.cachette.answer;

import static dev.cachette.answer.Answers.bytes;
import static dev.cachette.answer.Answers.json;
import static dev.cachette.answer.Answers.status;
import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.PropertyNamingStrategies;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.function.Executable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

class AnswersTest {

  record Berth(String berthName) {}

  @Test
  void eachKindHasItsContentType() {
    assertEquals("application/json", contentType(json("{}")));
    assertEquals("text/plain; charset=utf-8", contentType(text("hi")));
    assertEquals("application/octet-stream", contentType(bytes(new byte[] {1})));
    assertEquals(List.of(), status(404).response().headers().stream().toList());
  }

  @Test
  void contentIsSentAsGiven() {
    assertEquals("{ \"a\" : 1 }", json("{ \"a\" : 1 }").response().text());
    assertEquals("{\"berthName\":\"B-12\"}", json(new Berth("B-12")).response().text());
    assertEquals("[1,2]", json(List.of(1, 2)).response().text());
    assertEquals("\u00e9", text("\u00e9").response().text());
    assertArrayEquals(new byte[] {0, -1}, bytes(new byte[] {0, -1}).response().body().bytes());
  }

  @Test
  void aMapperOfOnesOwnWrites() {
    ObjectMapper snake =
        new ObjectMapper().setPropertyNamingStrategy(PropertyNamingStrategies.SNAKE_CASE);

    assertEquals("{\"berth_name\":\"B-12\"}", json(new Berth("B-12"), snake).response().text());
  }

  @Test
  void modifiersReturnANewAnswer() {
    ResponseAnswer plain = text("hi");
    ResponseAnswer changed =
        plain.status(201).header("Content-Type", "text/x-tide").header("via", "a", "b");

    assertEquals(200, plain.response().status());
    assertEquals(201, changed.response().status());
    assertEquals("text/x-tide", contentType(changed));
    assertEquals(List.of("a", "b"), changed.response().headers().all("Via"));
  }

  static Stream<Map.Entry<String, Executable>> mistakes() {
    return Stream.of(
        Map.entry("json(text) must not be null", () -> json((String) null)),
        Map.entry("json(value) must not be null", () -> json((Object) null)),
        Map.entry("not valid JSON, it is empty", () -> json("")),
        Map.entry("not valid JSON, line 2, column 5: Unexpected", () -> json("{\n\"a\" }")),
        Map.entry(
            "not valid JSON, line 1, column 4: unexpected content after the end",
            () -> json("{} {}")),
        Map.entry("Jackson rejected an object of class", () -> json(new Unwritable())),
        Map.entry("text(text) must not be null", () -> text(null)),
        Map.entry("bytes(bytes) must not be null", () -> bytes(null)),
        Map.entry("The status of a response is 200 to 599, not 99", () -> status(99)),
        Map.entry("status 204 has no content", () -> text("hi").status(204)),
        Map.entry("\"via\" needs a value", () -> status(200).header("via")),
        Map.entry(
            "\"content-length\" is derived from the body",
            () -> text("").header("content-length", "1")),
        Map.entry("must not contain a line break", () -> text("").header("via", "a\r\nb")),
        Map.entry(
            "\"a b\" has another character at position 2", () -> text("").header("a b", "c")));
  }

  @ParameterizedTest
  @MethodSource("mistakes")
  void aMistakeIsRefusedAtItsLine(Map.Entry<String, Executable> mistake) {
    var refused = assertThrows(IllegalArgumentException.class, mistake.getValue());

    assertTrue(refused.getMessage().contains(mistake.getKey()), refused::getMessage);
  }

  private static String contentType(ResponseAnswer answer) {
    return answer.response().headers().first("content-type").orElseThrow();
  }

  /** Has nothing that Jackson could write. */
  private static final class Unwritable {}
}
