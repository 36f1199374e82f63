// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases.file;

import dev.cachette.http.Request;
import dev.cachette.internal.text.Digests;
import dev.cachette.internal.uri.Percent;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** Names of cases: from the request, or given by hand. They are names of files, too. */
public final class CaseName {

  private static final int LONGEST = 80;
  private static final int DIGEST = 8;

  private CaseName() {}

  /** Returns a name for a request: {@code get-v1-tides-marrow-day-2031-04-02}. */
  public static String of(Request request) {
    List<String> words = new ArrayList<>();
    words.add(request.method().toLowerCase(Locale.ROOT));
    for (String segment : request.uri().path().split("/")) {
      words.add(Percent.decode(segment));
    }
    for (String name : request.uri().query().names()) {
      words.add(name);
      words.addAll(request.uri().query().all(name));
    }
    String name = plain(String.join("-", words));
    return name.length() <= LONGEST
        ? name
        : name.substring(0, LONGEST - DIGEST - 1)
            + "-"
            + Digests.of(name).substring(0, DIGEST).toLowerCase(Locale.ROOT);
  }

  private static String plain(String text) {
    return text.replaceAll("[^A-Za-z0-9._-]+", "-")
        .replaceAll("-{2,}", "-")
        .replaceAll("^[-.]+|[-.]+$", "");
  }

  /**
   * Returns a name given by hand as the name of a file: {@code arrival of Kittiwake} is {@code
   * arrival-of-Kittiwake}.
   *
   * @throws IllegalArgumentException if nothing is left of it
   */
  public static String given(String text) {
    String name = plain(text);
    if (name.isEmpty()) {
      throw new IllegalArgumentException(
          "\"" + text + "\" is not a name of a case: it has no letter or digit.");
    }
    return name.length() <= LONGEST ? name : name.substring(0, LONGEST);
  }
}
