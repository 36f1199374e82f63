// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import static dev.cachette.answer.Answers.json;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.UnexpectedCalls;
import dev.cachette.calls.Call;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Filters that select a call or not, and filters that are wrong. */
@Timeout(60)
class CallFilterTest {

  private static Cachette net;
  private static Call call;

  @BeforeAll
  static void makeACall() throws Exception {
    net =
        Cachette.open(
            Settings.defaults()
                .withoutInterception()
                .servingAs("https://berths.example")
                .unexpectedCalls(UnexpectedCalls.WARN));
    net.stub("POST /v1/bookings")
        .named("book a berth")
        .answer(json("{\"berth\":{\"name\":\"Pell Quay\",\"number\":4}}").status(201));
    HttpClient.newHttpClient()
        .send(
            HttpRequest.newBuilder(URI.create(net.baseUrl() + "/v1/bookings?day=2031-04-02"))
                .headers("X-Desk", "7", "Authorization", "Bearer kF83hdkqPz71")
                .POST(HttpRequest.BodyPublishers.ofString("aaaa".repeat(50_000)))
                .build(),
            HttpResponse.BodyHandlers.ofString());
    call = net.calls().only();
  }

  @AfterAll
  static void close() {
    net.close();
  }

  @ParameterizedTest
  @CsvSource(
      quoteCharacter = '`',
      value = {
        "``, true",
        "bookings, true",
        "BOOKINGS, true",
        "book*day, true",
        "day*book, false",
        "https://berths.example/v1/bookings, true",
        "method:post, true",
        "method:POS, false",
        "method:P*, true",
        "-method:GET, true",
        "-method:POST, false",
        "status:201, true",
        "status:2xx, true",
        "status:200-202, true",
        "status:202-204, false",
        "host:berths.example, true",
        "host:berths, false",
        "host:*.example, true",
        "path:/v1/b*s, true",
        "stub:\"book a\", true",
        "stub:book a tide, false",
        "header:x-desk, true",
        "header:x-desk=7, true",
        "header:x-desk=77, false",
        "header:authorization=*kF83*, false",
        "header:content-type=application/json*, true",
        "json:/berth/name=\"pell quay\", true",
        "json:/berth/number=4, true",
        "json:/berth/number=*, true",
        "json:/berth/number=5, false",
        "json:/quay, false",
        "is:unexpected, false",
        "-is:unexpected is:failed, false",
        "slower:0ms, true",
        "slower:1h, false",
      })
  void selects(String filter, boolean selected) {
    assertEquals(selected, CallFilter.of(filter).selects(call), filter);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "status:20 | column 8: status:20 cannot be read. Fix: write it as status:400-499.",
        "a status:x | column 10: status:x cannot be read.",
        "is:late | column 4: is:late cannot be read. Fix: write it as is:unexpected.",
        "slower:soon | column 8: slower:soon cannot be read. Fix: write it as slower:200ms.",
        "json:berth | column 6: json:berth cannot be read.",
        "header:=7 | column 8: header:=7 cannot be read.",
        "color:red | column 1: there is no field color. Fields: method, status, host",
        "method:\"\" | column 8: method: cannot be read.",
      })
  void whatIsWrongIsNamedWithItsColumn(String filter, String expected) {
    String message =
        assertThrows(IllegalArgumentException.class, () -> CallFilter.of(filter)).getMessage();

    assertTrue(message.startsWith(expected), message);
  }

  /** Neither takes long, nor the stack. */
  @Test
  void hostileFiltersAreHarmless() {
    assertThrows(IllegalArgumentException.class, () -> CallFilter.of("\"".repeat(100_000)));
    assertEquals(false, CallFilter.of("header:x-desk=" + "*7".repeat(400) + "x").selects(call));
    assertEquals(false, CallFilter.of("*a".repeat(400)).selects(call));
    assertEquals(true, CallFilter.of("\"".repeat(999) + "b").selects(call));
  }
}
