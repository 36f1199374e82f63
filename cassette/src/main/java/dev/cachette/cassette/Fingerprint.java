// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cassette;

import dev.cachette.cassette.Matching.Part;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.body.FormFormat;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.text.Digests;
import dev.cachette.internal.uri.Percent;
import dev.cachette.internal.uri.VaryingPath;
import java.util.stream.Collectors;

/**
 * A key that requests share if they match the same recorded exchange. Safe to share between
 * threads.
 */
final class Fingerprint {

  private final Matching matching;

  Fingerprint(Matching matching) {
    this.matching = matching;
  }

  /** Returns the key of method and URL. */
  String ofLine(String method, Uri uri) {
    StringBuilder key = new StringBuilder();
    if (matching.isOn(Part.METHOD)) {
      key.append(method);
    }
    key.append(' ');
    if (matching.isOn(Part.ORIGIN)) {
      key.append(uri.origin());
    }
    if (matching.isOn(Part.PATH)) {
      key.append(
          VaryingPath.of(
              Percent.normalise(Percent.encodeIllegal(uri.path())), matching.varyingPaths()));
    }
    if (matching.isOn(Part.QUERY) && uri.rawQuery().isPresent()) {
      String sorted = query(uri.rawQuery().get(), uri);
      if (!sorted.isEmpty()) {
        key.append('?').append(sorted);
      }
    }
    return key.toString();
  }

  /** A single parameter needs no sorting, and most have no escapes. */
  private String query(String raw, Uri uri) {
    int equals = raw.indexOf('=');
    boolean whole =
        equals > 0
            && isPlain(raw, equals)
            && (matching.ignoredQuery().isEmpty()
                || !matching.ignoredQuery().contains(raw.substring(0, equals)));
    return whole ? raw + "&" : FormFormat.canonical(uri.query(), matching.ignoredQuery());
  }

  /** Returns true if there is one parameter, of letters, digits and hyphens. */
  private static boolean isPlain(String raw, int equals) {
    for (int at = 0; at < raw.length(); at++) {
      char c = raw.charAt(at);
      boolean letterOrDigit = c < 0x80 && Character.isLetterOrDigit(c);
      if (!letterOrDigit && c != '-' && at != equals) {
        return false;
      }
    }
    return true;
  }

  /** Returns the key of the compared headers and the body, unless the user compares bodies. */
  String ofRest(Request request) {
    String headers =
        matching.headers().stream()
            .map(name -> name + "=" + request.headers().all(name))
            .collect(Collectors.joining("\n"));
    boolean body = matching.isOn(Part.BODY) && matching.comparison().isEmpty();
    return body && !request.body().isEmpty()
        ? headers
            + "\n"
            + Digests.of(BodyFormats.canonical(content(request), matching.ignoredInBody()))
        : headers;
  }

  private static Content content(Request request) {
    return Content.of(request.headers(), request.body());
  }
}
