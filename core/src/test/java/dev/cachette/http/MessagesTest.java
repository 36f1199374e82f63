// SPDX-License-Identifier: Apache-2.0
package dev.cachette.http;

import static dev.cachette.Samples.request;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.cachette.internal.body.BodyFormats;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class MessagesTest {

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "Authorization | Bearer eyJhbGc        | Authorization: Bearer ****",
        "Authorization | secret                | Authorization: ****",
        "Cookie        | desk=7; id=12         | Cookie: desk=****; id=****",
        "Set-Cookie    | id=12; Path=/; Secure | Set-Cookie: id=****; Path=/; Secure",
        "X-Auth-Token  | 12345                 | X-Auth-Token: ****",
        "X-Api-Key     | 12345                 | X-Api-Key: ****",
        "Accept        | text/plain            | Accept: text/plain",
      })
  void secretsAreMaskedAsText(String name, String value, String shown) {
    assertEquals(shown, new Header(name, value).toString());
    assertEquals(value, new Header(name, value).value());
  }

  @Test
  void headersAreFoundInAnyCaseAndKeptInOrder() {
    Headers headers =
        Headers.of(List.of(new Header("Via", "a"), new Header("Age", "1"), new Header("VIA", "b")));

    assertEquals(List.of("a", "b"), headers.all("via"));
    assertEquals(Optional.of("1"), headers.first("AGE"));
    assertEquals("Age: 1\nvia: c", headers.with("via", "c").toString());
  }

  @Test
  void textIsReadInItsCharset() {
    Headers latin = Headers.none().with("content-type", "text/plain; charset=\"ISO-8859-1\"");
    Body body = Body.of("\u00e9", StandardCharsets.ISO_8859_1);

    assertEquals("\u00e9", new Response(200, latin, body).text());
  }

  @ParameterizedTest
  @CsvSource({
    "application/json,true",
    "application/problem+json,true",
    "APPLICATION/JSON; charset=utf-8,true",
    "text/html,false",
    "nonsense,false",
  })
  void jsonIsRecognised(String contentType, boolean isJson) {
    assertEquals(isJson, BodyFormats.named(Optional.of(contentType)).isJson());
  }

  @Test
  void aUriKeepsWhatWasSent() {
    Uri odd = Uri.at("https", "Tides.Example", 443, "/v1/{x}|y%zz?q=a b");

    assertEquals("https://tides.example/v1/{x}|y%zz?q=a b", odd.toString());
    assertEquals("https://tides.example/v1/%7Bx%7D%7Cy%25zz?q=a%20b", odd.toJavaUri().toString());
    assertEquals("http://[::1]:8080", Uri.at("http", "::1", 8080, "").origin());
  }

  @ParameterizedTest
  @CsvSource({
    "Tides.EXAMPLE,tides.example",
    "[::1],::1",
    "0:0:0:0:0:0:0:1,::1",
    "2001:DB8:0:0:0:0:0:7,2001:db8::7",
    "2001:db8:0:1:0:0:0:1,2001:db8:0:1::1",
    "2001:0db8::00,2001:db8::",
    "::,::",
    "1:2:3:4:5:6:7:8,1:2:3:4:5:6:7:8",
    "::ffff:192.0.2.1,::ffff:192.0.2.1",
    "1::2::3,1::2::3",
    "192.0.2.1,192.0.2.1",
  })
  void equalHostsHaveOneForm(String written, String canonical) {
    assertEquals(canonical, Uri.at("http", written, 80, "/").host());
  }

  @Test
  void aMethodIsAToken() {
    assertThrows(
        IllegalArgumentException.class,
        () -> new Request("G T", Uri.at("http", "a", 80, "/"), Headers.none(), Body.empty()));
    assertEquals(
        "GET https://tides.example/v1", request("GET https://tides.example/v1").toString());
  }
}
