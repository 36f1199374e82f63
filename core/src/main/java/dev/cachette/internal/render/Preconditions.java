// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.render;

import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.text.EntityTagList;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/**
 * Answers conditional requests that read (RFC 9110 section 13). Those that change are not decided
 * here: the validators of a response to PUT are those of the new state, and the precondition is
 * about the old one.
 */
final class Preconditions {

  /** Headers that a 304 repeats (RFC 9110 section 15.4.5), and cookies. */
  private static final Set<String> REPEATED =
      Set.of(
          "cache-control",
          "content-location",
          "date",
          "etag",
          "expires",
          "vary",
          "set-cookie",
          "last-modified");

  private Preconditions() {}

  /** Returns the response if a precondition fails. */
  static Optional<Response> decide(Request request, Response response) {
    boolean reading = request.method().equals("GET") || request.method().equals("HEAD");
    if (!reading || response.status() / 100 != 2 || !asksConditionally(request.headers())) {
      return Optional.empty();
    }
    Optional<String> etag = response.headers().first("etag");
    Optional<Instant> modified = date(response.headers(), "last-modified");
    if (fails(request.headers(), etag, modified)) {
      return Optional.of(new Response(412, Headers.none(), Body.empty()));
    }
    return isKnown(request.headers(), etag, modified)
        ? Optional.of(notModified(response))
        : Optional.empty();
  }

  /** Few requests are conditional; the others need no look at the response. */
  private static boolean asksConditionally(Headers asked) {
    for (Header field : asked) {
      if (field.name().regionMatches(true, 0, "if-", 0, 3)) {
        return true;
      }
    }
    return false;
  }

  private static boolean fails(Headers asked, Optional<String> etag, Optional<Instant> modified) {
    if (etag.isPresent() && asked.has("if-match")) {
      // A weak tag never matches strongly.
      return etag.get().startsWith("W/")
          || !EntityTagList.contains(asked.all("if-match"), etag.get(), false);
    }
    Optional<Instant> since = date(asked, "if-unmodified-since");
    return since.isPresent() && modified.isPresent() && modified.get().isAfter(since.get());
  }

  private static boolean isKnown(Headers asked, Optional<String> etag, Optional<Instant> modified) {
    if (asked.has("if-none-match")) {
      return etag.isPresent()
          && EntityTagList.contains(asked.all("if-none-match"), etag.get(), true);
    }
    Optional<Instant> since = date(asked, "if-modified-since");
    return since.isPresent() && modified.isPresent() && !modified.get().isAfter(since.get());
  }

  private static Response notModified(Response response) {
    List<Header> kept =
        response.headers().stream()
            .filter(header -> REPEATED.contains(header.name().toLowerCase(Locale.ROOT)))
            .toList();
    return new Response(304, Headers.of(kept), Body.empty());
  }

  private static Optional<Instant> date(Headers headers, String name) {
    try {
      return headers
          .first(name)
          .map(
              text -> OffsetDateTime.parse(text, DateTimeFormatter.RFC_1123_DATE_TIME).toInstant());
    } catch (DateTimeException ignored) {
      // An invalid date is ignored (RFC 9110 section 13.1.3).
      return Optional.empty();
    }
  }
}
