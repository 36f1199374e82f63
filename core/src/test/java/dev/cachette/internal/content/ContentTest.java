// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.content;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Bodies as text, JSON, XML and parts, and why they are none. */
class ContentTest {

  private static Content content(String type, String body) {
    return Content.of(typed(type), Body.of(body));
  }

  private static Headers typed(String type) {
    return type == null ? Headers.none() : Headers.none().with("content-type", type);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "multipart/form-data; boundary=x | --x~Content-Disposition: form-data; name=\"a\"~~1~--x--~"
            + " | a=1",
        "multipart/form-data; boundary=\"x y\" | --x y~Content-Disposition: form-data;"
            + " name=a~~1~--x y-- | a=1",
        "multipart/form-data; boundary=x | note~--x~content-disposition: form-data;~"
            + " name=\"a\\\"b\"~~1~--x-- | a\"b=1",
        "multipart/form-data; boundary=x | --x~~1~2~--x~~~--x-- | -=1\\r\\n2, -=",
        "multipart/form-data; boundary=x | --x~Content-Disposition: form-data; name=a~--x-- | a=",
        "multipart/form-data; boundary=x | --x-- | ``",
        "multipart/form-data; boundary=x | --y~~1~--y-- | malformed multipart content: the boundary"
            + " \"x\" does not occur in the body",
        "multipart/form-data; boundary=x | --x~~1 | malformed multipart content: part 1 is not"
            + " closed by the boundary \"x\"",
        "multipart/form-data; boundary=x | --x~~1~--x~~2 | malformed multipart content: part 2 is"
            + " not closed by the boundary \"x\"",
        "multipart/form-data | --x~~1~--x-- | multipart content whose type has no boundary",
        "text/plain | --x~~1~--x-- | content of type text/plain",
        "| --x~~1~--x-- | content without a type",
      })
  void partsAreRead(String type, String body, String expected) {
    Reading<List<Part>> parts = content(type, body.replace("~", "\r\n")).parts();
    String said =
        parts
            .value()
            .map(
                all ->
                    all.stream()
                        .map(
                            it ->
                                it.name().orElse("-")
                                    + "="
                                    + it.body().text(StandardCharsets.UTF_8))
                        .collect(Collectors.joining(", ")))
            .orElse(parts.problem());
    assertEquals(expected, said.replace("\r", "\\r").replace("\n", "\\n"));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "form-data; name=a; filename=\"plan.txt\"                 | plan.txt",
        "form-data; name=a; filename=\"p.txt\"; filename*=UTF-8''pl%C3%A4n.txt | plän.txt",
        "form-data; name=a                                        | none",
      })
  void fileNamesAreRead(String disposition, String expected) {
    Headers headers = Headers.none().with("content-disposition", disposition);
    assertEquals(expected, new Part(headers, Body.empty()).fileName().orElse("none"));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "{\"a\": 1}  | ``",
        "``          | an empty body",
        "{           | not valid JSON, line 1, column 2: Unexpected end-of-input: expected close"
            + " marker for Object (start marker at line: 1, column: 1), near {",
        "1 2         | not valid JSON, line 1, column 3: unexpected content after the end",
      })
  void jsonIsReadOrNot(String body, String problem) {
    Reading<?> reading = content("application/json", body).jsonReading();
    assertEquals(problem, reading.problem());
    assertEquals(problem.isEmpty(), reading.value().isPresent());
  }

  /** The text around the error may have a part of a secret. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "{\"password\":\"SECRET\",}",
        "{\"a\":1, \"token\":\"SECRET\" \"b\":2}",
        "{\"password\": SECRET}",
        "{\"password\": 'SECRET'}",
        "{\"password\":\"SECRET",
        "{\"authorization\":\"Bearer SECRET\"",
        "[\"eyJhbGciOiJIUzI1NiJ9.eyJzdWIiOiJhbm5hIn0.SECRET\" 1]",
        "{\"a\":\"x\"}}{\"password\":\"SECRET\"}",
      })
  void errorsQuoteNoPartOfASecret(String body) {
    String secret = "Kx7q9Zt4Vb2nRw8LmPd5Yc3HfGj6Sa1E";
    for (String type : new String[] {"application/json", "application/x-ndjson", "text/plain"}) {
      String said = content(type, body.replace("SECRET", secret)).jsonReading().problem();
      for (int at = 0; at + 6 <= secret.length(); at++) {
        assertFalse(said.contains(secret.substring(at, at + 6)), said);
      }
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      value = {
        "application/xml                 | <a/>      | ``",
        "application/xml; charset=utf-8  | <a>ü</a>  | ``",
        "application/xml                 | ``        | an empty body",
        "application/xml                 | <a><b></a> | not well-formed XML, line 1, column 9: The"
            + " element type \"b\" must be terminated by the matching end-tag \"</b>\".",
        "application/xml                 | <?xml version=\"1.0\" encoding=\"none\"?><a/> | not"
            + " well-formed XML, its encoding \"none\" is unknown",
      })
  void xmlIsReadOrNot(String type, String body, String problem) {
    assertEquals(problem, content(type, body).xml().problem());
  }

  @Test
  void elementsOfManyLevelsAreRefused() {
    String deep = "<a>".repeat(1_001) + "</a>".repeat(1_001);
    String said = content("application/xml", deep).xml().problem();
    assertTrue(said.endsWith("its elements are nested more than 1000 levels deep"), said);
  }

  @Test
  void bytesThatAreNotXmlInTheirCharsetAreRefused() {
    Body body =
        Body.of("<?xml version=\"1.0\"?><a>\u00fc</a>".getBytes(StandardCharsets.ISO_8859_1));
    String said = Content.of(typed("application/xml"), body).xml().problem();
    assertTrue(said.startsWith("not well-formed XML, "), said);
  }

  @ParameterizedTest
  @CsvSource({"utf-8", "iso-8859-1", "utf-16"})
  void textHasItsCharset(String charset) {
    Body body = Body.of("gr\u00fcn".getBytes(Charset.forName(charset)));
    assertEquals("gr\u00fcn", Content.of(typed("text/plain; charset=" + charset), body).text());
  }

  @Test
  void anUnknownEncodingIsNamedAndTheBytesStay() {
    Content content =
        Content.of(Headers.none().with("content-encoding", "zstd"), Body.of("as it came"));
    assertEquals(
        "content with the encoding \"zstd\", which is not supported",
        content.encodingProblem().orElseThrow());
    assertArrayEquals("as it came".getBytes(StandardCharsets.UTF_8), content.bytes());
    assertEquals(content.encodingProblem().orElseThrow(), content.jsonReading().problem());
    assertFalse(content.isEmpty());
  }

  @Test
  void cookiesOfAllHeadersAreRead() {
    Headers headers =
        Headers.none().and("cookie", "a=1; b=\"2\"; =3; d").and("Cookie", "a=4;e=5=6");
    Cookies cookies =
        Cookies.in(new Request("GET", Uri.parse("https://a.example"), headers, Body.empty()));
    assertEquals(List.of("1", "4"), cookies.all("a"));
    assertEquals(List.of("2"), cookies.all("b"));
    assertEquals(List.of("5=6"), cookies.all("e"));
    assertEquals(List.of(), cookies.all("d"));
    assertEquals("[a, b, e]", cookies.names().toString());
  }
}
