// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.content;

import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;

/** Parses multipart bodies (RFC 2046 section 5.1, RFC 7578). */
public final class Multipart {

  private static final byte[] LINE_END = {'\r', '\n'};
  private static final byte[] HEAD_END = {'\r', '\n', '\r', '\n'};

  private Multipart() {}

  /**
   * Returns the parts between the boundaries, in order.
   *
   * @throws IllegalArgumentException if the body is malformed; the message says what is missing
   */
  public static List<Part> parts(byte[] body, String boundary) {
    byte[] delimiter = ("--" + boundary).getBytes(StandardCharsets.UTF_8);
    List<Part> parts = new ArrayList<>();
    int at = find(body, delimiter, 0);
    if (at < 0) {
      throw new IllegalArgumentException(
          "the boundary \"" + boundary + "\" does not occur in the body");
    }
    byte[] next = ("\r\n--" + boundary).getBytes(StandardCharsets.UTF_8);
    at += delimiter.length;
    while (!startsWith(body, new byte[] {'-', '-'}, at)) {
      int start = find(body, LINE_END, at);
      // Without content, the end of a part is the end of its empty head.
      int end = start < 0 ? -1 : find(body, next, start);
      if (end < 0) {
        throw new IllegalArgumentException(
            "part " + (parts.size() + 1) + " is not closed by the boundary \"" + boundary + "\"");
      }
      parts.add(part(body, start + LINE_END.length, end));
      at = end + next.length;
    }
    return parts;
  }

  private static Part part(byte[] body, int from, int to) {
    if (startsWith(body, LINE_END, from)) {
      return new Part(Headers.none(), slice(body, from + LINE_END.length, to));
    }
    int headEnd = find(body, HEAD_END, from);
    if (headEnd < 0 || headEnd + HEAD_END.length > to + LINE_END.length) {
      return new Part(headers(body, from, to), Body.empty());
    }
    return new Part(
        headers(body, from, headEnd), slice(body, Math.min(headEnd + HEAD_END.length, to), to));
  }

  private static Headers headers(byte[] body, int from, int to) {
    String head = new String(body, from, to - from, StandardCharsets.UTF_8);
    List<Header> fields = new ArrayList<>();
    for (String line : head.replaceAll("\r\n[ \t]+", " ").split("\r\n")) {
      int colon = line.indexOf(':');
      if (colon > 0) {
        fields.add(new Header(line.substring(0, colon).strip(), line.substring(colon + 1)));
      }
    }
    return Headers.of(fields);
  }

  private static Body slice(byte[] body, int from, int to) {
    byte[] content = new byte[Math.max(0, to - from)];
    System.arraycopy(body, from, content, 0, content.length);
    return Body.of(content);
  }

  private static int find(byte[] body, byte[] what, int from) {
    for (int at = from; at <= body.length - what.length; at++) {
      if (startsWith(body, what, at)) {
        return at;
      }
    }
    return -1;
  }

  private static boolean startsWith(byte[] body, byte[] what, int at) {
    if (at + what.length > body.length) {
      return false;
    }
    for (int i = 0; i < what.length; i++) {
      if (body[at + i] != what[i]) {
        return false;
      }
    }
    return true;
  }
}
