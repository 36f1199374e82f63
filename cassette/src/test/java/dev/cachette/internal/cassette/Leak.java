// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Header;
import dev.cachette.internal.content.Content;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import java.util.zip.GZIPInputStream;

/**
 * Looks for a secret by decoding whatever can be decoded, in every order, with nothing of what
 * takes secrets out.
 */
record Leak(String secret) {

  private static final int DEEPEST = 4;
  private static final int PART = 9;
  private static final Pattern BASE64 = Pattern.compile("[A-Za-z0-9+/_-]{8,}");
  private static final ObjectMapper MAPPER = new ObjectMapper();

  boolean isIn(byte[] file) {
    String text = new String(file, StandardCharsets.UTF_8);
    return isPartlyIn(text) || isIn(text, DEEPEST);
  }

  /** Returns true if a part of a long secret is in a text, which is cut, or shows a difference. */
  private boolean isPartlyIn(String text) {
    for (int at = 0; secret.length() >= 2 * PART && at + PART <= secret.length(); at++) {
      if (text.contains(secret.substring(at, at + PART))) {
        return true;
      }
    }
    return false;
  }

  boolean isIn(Exchange exchange) {
    return Stream.of(
            exchange.request().uri().toString(),
            headers(exchange.request().headers().stream()),
            Content.of(exchange.request().headers(), exchange.request().body()).text(),
            latin(exchange.request().body().bytes()),
            latin(unzipped(exchange.request().body().bytes())),
            headers(exchange.response().orElseThrow().headers().stream()),
            Content.of(exchange.response().get().headers(), exchange.response().get().body())
                .text())
        .anyMatch(text -> isIn(text, DEEPEST));
  }

  private static String headers(Stream<Header> headers) {
    return String.join("\n", headers.map(Header::value).toList());
  }

  private boolean isIn(String text, int depth) {
    if (text.contains(secret) || text.contains(latin(secret.getBytes(StandardCharsets.UTF_8)))) {
      return true;
    }
    return depth > 0 && readings(text).stream().anyMatch(reading -> isIn(reading, depth - 1));
  }

  private static List<String> readings(String text) {
    List<String> readings = new ArrayList<>();
    if (text.indexOf('%') >= 0 || text.indexOf('+') >= 0) {
      try {
        readings.add(URLDecoder.decode(text, StandardCharsets.UTF_8));
      } catch (IllegalArgumentException noUrl) {
        // Then nothing is encoded so.
      }
    }
    if (text.indexOf('&') >= 0) {
      readings.add(
          text.replace("&lt;", "<")
              .replace("&gt;", ">")
              .replace("&quot;", "\"")
              .replace("&apos;", "'")
              .replace("&amp;", "&"));
    }
    Matcher base64 = BASE64.matcher(text);
    while (base64.find()) {
      decoded(base64.group(), readings);
    }
    if (text.startsWith("{") || text.startsWith("[")) {
      try {
        strings(MAPPER.readTree(text), readings);
      } catch (JsonProcessingException noJson) {
        // Then nothing is escaped so.
      }
    }
    return readings.stream().filter(reading -> !reading.equals(text)).toList();
  }

  private static void decoded(String token, List<String> readings) {
    try {
      byte[] bytes = Base64.getDecoder().decode(token.replace('-', '+').replace('_', '/'));
      readings.add(new String(bytes, StandardCharsets.UTF_8));
      readings.add(latin(bytes));
      readings.add(new String(unzipped(bytes), StandardCharsets.UTF_8));
    } catch (IllegalArgumentException noBase64) {
      // Then it is a word.
    }
  }

  private static byte[] unzipped(byte[] bytes) {
    if (bytes.length < 2 || bytes[0] != 0x1f) {
      return new byte[0];
    }
    try (InputStream in = new GZIPInputStream(new ByteArrayInputStream(bytes))) {
      return in.readAllBytes();
    } catch (IOException noGzip) {
      return new byte[0];
    }
  }

  private static void strings(JsonNode node, List<String> readings) {
    if (node.isTextual()) {
      readings.add(node.asText());
    }
    node.fieldNames().forEachRemaining(readings::add);
    node.forEach(child -> strings(child, readings));
  }

  private static String latin(byte[] bytes) {
    return new String(bytes, StandardCharsets.ISO_8859_1);
  }
}
