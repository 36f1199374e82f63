// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import dev.cachette.cassette.Exchange;
import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.MediaType;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.ContentEncoding;
import dev.cachette.internal.uri.Percent;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** A call with a secret somewhere in it, as the files below secrets/ have it. */
record Placement(String name, String secret, String text, Exchange exchange) {

  private static final Pattern SECRET =
      Pattern.compile("\\$\\{(?:(\\w+):)?secret((?:\\|\\w+)*)\\}");

  static Stream<Placement> read(String file, String secret) throws IOException {
    try (InputStream in = Placement.class.getResourceAsStream("/secrets/" + file)) {
      String text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
      return Arrays.stream(text.split("(?m)^### "))
          .filter(block -> !block.isBlank())
          .map(
              block -> {
                String[] parts = block.split("\n", 2);
                return of(parts[0], secret, parts[1].stripTrailing());
              });
    }
  }

  /** Reads calls that each end with {@code => } and the secret in them. */
  static Stream<Placement> readWithSecrets(String file) throws IOException {
    return read(file, "")
        .map(
            placement -> {
              int arrow = placement.text.lastIndexOf(" => ");
              return of(
                  placement.name,
                  placement.text.substring(arrow + 4),
                  placement.text.substring(0, arrow));
            });
  }

  static Placement of(String call) {
    return of("a call", "none", call);
  }

  private static Placement of(String name, String secret, String call) {
    String filled =
        SECRET
            .matcher(call)
            .replaceAll(
                place -> Matcher.quoteReplacement(written(secret, place.group(1), place.group(2))));
    String[] halves = filled.split("\n\nHTTP ", 2);
    String[] request = halves[0].split("\n\n", 2);
    List<String> head = List.of(request[0].split("\n"));
    String[] line = head.get(0).split(" ", 2);
    Headers headers = headers(head.subList(1, head.size()));
    Body body = body(headers, request.length > 1 ? request[1] : "");
    return new Placement(
        name,
        secret,
        call,
        Exchange.answered(
            Instant.EPOCH,
            Duration.ZERO,
            "HTTP/1.1",
            new Request(line[0], Uri.parse(line[1]), headers.with("test-body"), body),
            halves.length > 1
                ? response(halves[1])
                : new Response(204, Headers.none(), Body.empty())));
  }

  private static Response response(String text) {
    String[] parts = text.split("\n\n", 2);
    List<String> head = List.of(parts[0].split("\n"));
    Headers headers = headers(head.subList(1, head.size()));
    return new Response(
        Integer.parseInt(head.get(0)), headers, body(headers, parts.length > 1 ? parts[1] : ""));
  }

  private static Headers headers(List<String> lines) {
    List<Header> headers = new ArrayList<>();
    for (String line : lines) {
      String[] pair = line.split(": ", 2);
      headers.add(new Header(pair[0], pair[1]));
    }
    return Headers.of(headers);
  }

  private static Body body(Headers headers, String text) {
    String lines =
        headers.contentType().filter(it -> it.type().equals("multipart")).isPresent()
            ? text.replace("\n", "\r\n")
            : text;
    byte[] bytes =
        lines.getBytes(
            headers.contentType().map(MediaType::charsetOrDefault).orElse(StandardCharsets.UTF_8));
    String kind = headers.first("content-encoding").or(() -> headers.first("test-body")).orElse("");
    if (kind.equals("bytes")) {
      byte[] more = Arrays.copyOf(new byte[] {(byte) 0xff, 0, (byte) 0xfe, 9}, bytes.length + 4);
      System.arraycopy(bytes, 0, more, 4, bytes.length);
      return Body.of(more);
    }
    Optional<ContentEncoding> encoding = ContentEncoding.named(kind);
    return Body.of(encoding.isPresent() ? encoding.get().encode(bytes) : bytes);
  }

  /** Returns the secret behind a prefix, in one form after the other. */
  private static String written(String secret, String prefix, String forms) {
    String text =
        prefix == null
            ? secret
            : prefix.equals("json")
                ? "{\"word\":\"" + Placeholder.Form.JSON.of(secret) + "\"}"
                : prefix + ":" + secret;
    for (String form : forms.isEmpty() ? new String[0] : forms.substring(1).split("\\|")) {
      text = in(form, text);
    }
    return text;
  }

  private static String in(String form, String text) {
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    return switch (form) {
      case "url" -> Percent.encodeSegment(text);
      case "form" -> Percent.encodeForm(text);
      case "json" -> text.replace("\\", "\\\\").replace("\"", "\\\"");
      case "slash" -> text.replace("/", "\\/");
      case "unicode" ->
          text.chars().mapToObj(c -> String.format("\\u%04x", c)).collect(Collectors.joining());
      case "xml" ->
          text.replace("&", "&amp;")
              .replace("<", "&lt;")
              .replace("\"", "&quot;")
              .replace("'", "&apos;");
      case "lower" ->
          Pattern.compile("%..")
              .matcher(text)
              .replaceAll(escape -> escape.group().toLowerCase(Locale.ROOT));
      case "base64" -> Base64.getEncoder().encodeToString(bytes);
      case "base64url" -> Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
      case "bare" -> text.replace("=", "");
      default -> throw new IllegalArgumentException(form);
    };
  }

  /** Returns the text that a caller reads, whatever its encoding. */
  static String said(Response response) {
    return response.status()
        + " "
        + response.headers().stream().map(header -> header.name() + ": " + header.value()).toList()
        + " "
        + Content.of(response.headers(), response.body()).text();
  }

  @Override
  public String toString() {
    return name;
  }
}
