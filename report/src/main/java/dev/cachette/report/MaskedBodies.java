// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import dev.cachette.control.BodyText;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.internal.secret.Masking;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Bodies as text, with secrets masked. Tests use the same bodies again and again, and to look for
 * secrets takes longer than to write the body, so the last ones are remembered. For one thread.
 */
final class MaskedBodies {

  private static final int REMEMBERED = 1_000;
  private static final int LARGE = 16_384;

  private final Map<List<Object>, Optional<String>> remembered =
      new LinkedHashMap<>() {
        private static final long serialVersionUID = 1;

        @Override
        protected boolean removeEldestEntry(Map.Entry<List<Object>, Optional<String>> eldest) {
          return size() > REMEMBERED;
        }
      };

  /** The policy by which they were masked: another object as soon as there are more secrets. */
  private Object policy = Masking.policy();

  /** Returns a body as text; empty if it is empty or binary. */
  Optional<String> of(Headers headers, Body body) {
    if (body.size() > LARGE) {
      return BodyText.of(headers, body);
    }
    Object now = Masking.policy();
    if (policy != now) {
      policy = now;
      remembered.clear();
    }
    List<Object> key = List.of(headers.first("content-type"), body);
    Optional<String> known = remembered.get(key);
    if (known == null) {
      known = BodyText.of(headers, body);
      remembered.put(key, known);
    }
    return known;
  }
}
