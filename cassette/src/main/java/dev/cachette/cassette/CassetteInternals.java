// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cassette;

import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.body.Ignored;
import java.util.List;
import java.util.Optional;

/**
 * Members of this package for the implementation. Not public API: may change in any release.
 *
 * @hidden
 */
public final class CassetteInternals {

  private CassetteInternals() {}

  /** An exchange in two recordings; it may be missing in one of them. */
  public record Pair(Optional<Exchange> before, Optional<Exchange> after) {}

  /** Returns the key of method and URL, which equivalent requests share. */
  public static String keyOfLine(Matching matching, String method, Uri uri) {
    return new Fingerprint(matching).ofLine(method, uri);
  }

  /** Returns the key of the compared headers and the body, unless the user compares bodies. */
  public static String keyOfRest(Matching matching, Request request) {
    return new Fingerprint(matching).ofRest(request);
  }

  /** Writes each exchange when it is finished, and gives advice in options of the command line. */
  public static CassetteSettings ofCommandLine(CassetteSettings settings) {
    return settings.ofCommandLine();
  }

  /** Returns true if the command line uses these settings. */
  public static boolean isOfCommandLine(CassetteSettings settings) {
    return settings.isOfCommandLine();
  }

  /** Returns the places in bodies that are not compared. */
  public static Ignored ignoredInBody(Matching matching) {
    return matching.ignoredInBody();
  }

  /** Pairs the exchanges of two recordings. */
  public static List<Pair> pairs(List<Exchange> before, List<Exchange> after, Matching matching) {
    return Pairs.of(before, after, matching);
  }
}
