// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.text;

import static org.junit.jupiter.api.Assertions.assertEquals;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Placeholders in URLs, as files and other tools write them. */
class PlaceholdersTest {

  @ParameterizedTest
  @CsvSource({
    "/v1?key=%7B%7Bx-api-key%7D%7D, /v1?key={{x-api-key}}",
    "/v1?key=%7b%7bx-api-key%7d%7d, /v1?key={{x-api-key}}",
    "/v1/%7B%7Baccess_token:base64%7D%7D/a, /v1/{{access_token:base64}}/a",
    "/v1/%7B%7baccess_token%3abase64%7D%7d/%7B%7Bid%3D2%7D%7D,"
        + " /v1/{{access_token:base64}}/{{id=2}}",
    "/v1?q=%7B%7B%7D%7D, /v1?q=%7B%7B%7D%7D",
    "/v1?q=%7B%7Ba%20b%7D%7D, /v1?q=%7B%7Ba%20b%7D%7D",
    "/v1?q=%7Ba%7D&share=100%71, /v1?q=%7Ba%7D&share=100%71",
    "/v1?q={{a}}, /v1?q={{a}}"
  })
  void areReadInUrls(String url, String expected) {
    assertEquals(expected, Placeholders.unescaped(url));
  }
}
