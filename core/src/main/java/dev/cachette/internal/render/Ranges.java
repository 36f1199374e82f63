// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.render;

import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import java.util.Arrays;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Answers range requests (RFC 9110 section 14). Several ranges get the whole content, which the RFC
 * allows.
 */
final class Ranges {

  private static final Pattern RANGE = Pattern.compile("bytes\\s*=\\s*([0-9]{0,18})-([0-9]{0,18})");

  private Ranges() {}

  static Response apply(Request request, Response response) {
    Headers headers = response.headers().with("accept-ranges", "bytes");
    Response whole = new Response(response.status(), headers, response.body(), response.trailers());
    Optional<String> asked = request.headers().first("range");
    boolean applies =
        response.status() == 200 && request.method().equals("GET") && isCurrent(request, headers);
    if (asked.isEmpty() || !applies) {
      return whole;
    }
    Matcher range = RANGE.matcher(asked.get());
    return range.matches() && isValid(range.group(1), range.group(2))
        ? part(range.group(1), range.group(2), whole)
        : whole;
  }

  /** An invalid range is ignored. */
  private static boolean isValid(String first, String last) {
    return first.isEmpty()
        ? !last.isEmpty()
        : last.isEmpty() || Long.parseLong(first) <= Long.parseLong(last);
  }

  private static Response part(String first, String last, Response whole) {
    byte[] bytes = whole.body().bytes();
    long from = first.isEmpty() ? bytes.length - Long.parseLong(last) : Long.parseLong(first);
    long to = first.isEmpty() || last.isEmpty() ? bytes.length - 1L : Long.parseLong(last);
    from = Math.max(0, from);
    to = Math.min(to, bytes.length - 1L);
    if (from > to) {
      return new Response(
          416, Headers.none().with("content-range", "bytes */" + bytes.length), Body.empty());
    }
    return new Response(
        206,
        whole.headers().with("content-range", "bytes " + from + "-" + to + "/" + bytes.length),
        Body.of(Arrays.copyOfRange(bytes, (int) from, (int) to + 1)),
        whole.trailers());
  }

  /** Returns true if {@code if-range} is absent, or is this version. */
  private static boolean isCurrent(Request request, Headers headers) {
    return request
        .headers()
        .first("if-range")
        .map(
            version ->
                headers.first("etag").filter(version::equals).isPresent()
                    || headers.first("last-modified").filter(version::equals).isPresent())
        .orElse(true);
  }
}
