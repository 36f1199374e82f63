// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.match;

import dev.cachette.http.Query;
import dev.cachette.http.Request;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.uri.Percent;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** A request, parsed once for all patterns that it is tested against. Safe to share. */
public final class ParsedRequest {

  private final Request request;
  private final Content content;
  private final String origin;
  private final String normalPath;
  private final String key;

  /** Parsed at the first access; two threads may parse the same. */
  private @Nullable Query query;

  private @Nullable List<String> segments;

  /** Parses a request. */
  public ParsedRequest(Request request) {
    this.request = request;
    this.content = Content.of(request.headers(), request.body());
    this.origin = request.uri().origin();
    this.normalPath = Percent.normalise(request.uri().path());
    this.key = RequestKey.of(request.method(), origin, normalPath);
  }

  /** Returns the request itself. */
  public Request request() {
    return request;
  }

  /** Returns its content, decoded. */
  public Content content() {
    return content;
  }

  /** Returns scheme, host and port; see {@link dev.cachette.http.Uri#origin}. */
  public String origin() {
    return origin;
  }

  /**
   * Returns the path in normal form, in which equivalent escapes are equal (RFC 3986 section
   * 6.2.2).
   */
  public String normalPath() {
    return normalPath;
  }

  /** Returns the segments of the normal path; the first, before the slash, is empty. */
  public List<String> segments() {
    List<String> split = segments;
    if (split == null) {
      split = List.of(normalPath.split("/", -1));
      segments = split;
    }
    return split;
  }

  /** Returns method, origin and normal path in one key; equal requests have equal keys. */
  public String key() {
    return key;
  }

  /** Returns the parameters of the query, decoded. */
  public Query query() {
    Query read = query;
    if (read == null) {
      read = request.uri().query();
      query = read;
    }
    return read;
  }
}
