// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases;

import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.body.Ignored;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.text.Quoting;
import dev.cachette.result.Cause;
import dev.cachette.result.Difference;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/**
 * Compares headers and body of a message with those in a case. Where values vary, their shape must
 * be the same: another UUID for a UUID.
 *
 * @param varying the places where values vary
 * @param captured when the message of the case was captured
 * @param now when the other one was sent
 */
record MessageComparison(VaryingPlaces varying, Instant captured, Instant now) {

  private static final String NONE = "none";

  /** Returns the differences of the headers. */
  List<Difference> headers(Headers expected, Headers actual) {
    List<Difference> found = new ArrayList<>();
    for (String name : ComparedHeaders.names(expected, actual)) {
      String want = text(name, expected);
      String have = text(name, actual);
      if (!want.equals(have) && !(varying.headers().contains(name) && isSameShape(want, have))) {
        found.add(new Difference("header " + name, shown(want), shown(have), Optional.empty()));
      }
    }
    return found;
  }

  private static String text(String name, Headers headers) {
    String all = String.join(", ", headers.all(name));
    // The boundary of a multipart body is random.
    return name.equals("content-type")
        ? all.replaceAll("\\s*;\\s*", "; ")
            .replaceAll("; boundary=[^;]*", "")
            .toLowerCase(Locale.ROOT)
        : all;
  }

  private static String shown(String value) {
    return value.isEmpty() ? NONE : Quoting.quote(value);
  }

  /** Returns true if a value is as it was, but for what is generated; or if it has no shape. */
  boolean isSameShape(String expected, String actual) {
    if (expected.isEmpty() || actual.isEmpty()) {
      return false;
    }
    String shape = Shapes.template(expected, captured);
    return shape.equals(expected) || Shapes.isLike(shape, actual, now);
  }

  /** Returns the differences of the bodies. */
  List<Difference> body(
      Headers expectedHeaders, Body expectedBody, Headers actualHeaders, Body actualBody) {
    Content expected = Content.of(expectedHeaders, expectedBody);
    Content actual = Content.of(actualHeaders, actualBody);
    if (varying.wholeBody() && isSameShape(expected.text(), actual.text())) {
      return List.of();
    }
    Set<Difference> fixed = new LinkedHashSet<>(differences(expected, actual, varying.inBody()));
    List<Difference> found = new ArrayList<>(fixed);
    if (!varying.inBody().equals(Ignored.NOTHING)) {
      for (Difference each : differences(expected, actual, Ignored.NOTHING)) {
        if (!fixed.contains(each) && !mayVary(each)) {
          found.add(each.with(each.cause().or(() -> shapeCause(each))));
        }
      }
    }
    return found.stream().map(it -> it.at(("body " + it.at()).strip())).toList();
  }

  /** Returns true if a difference at a place that varies is one of the value alone. */
  private boolean mayVary(Difference difference) {
    return difference.kind() == Difference.Kind.VALUE
        && isSameShape(difference.expected(), difference.actual());
  }

  private Optional<Cause> shapeCause(Difference difference) {
    String shape = Shapes.template(difference.expected(), captured);
    return shape.equals(difference.expected())
        ? Optional.empty()
        : Optional.of(Cause.certain("the value varies, but is " + shape.replaceAll("[<>\"]", "")));
  }

  private static List<Difference> differences(Content expected, Content actual, Ignored ignored) {
    return expected.isEmpty() && actual.isEmpty()
        ? List.of()
        : BodyFormats.differences(expected, actual, ignored);
  }
}
