// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import static dev.cachette.match.Values.is;

import dev.cachette.cassette.CassetteInternals;
import dev.cachette.cassette.Matching;
import dev.cachette.cassette.Matching.Part;
import dev.cachette.http.Query;
import dev.cachette.http.Request;
import dev.cachette.internal.uri.VaryingPath;
import dev.cachette.match.Condition;
import dev.cachette.match.Conditions;
import dev.cachette.match.RequestPattern;
import java.util.ArrayList;
import java.util.List;

/** The pattern of a stub for a recorded request, to explain why no exchange matches. */
final class RecordedPattern {

  private RecordedPattern() {}

  static RequestPattern of(Request recorded, Matching matching) {
    String method = matching.isOn(Part.METHOD) ? recorded.method() : "*";
    String path = matching.isOn(Part.PATH) ? path(recorded, matching) : "/{+anything}";
    String line = method + " " + recorded.uri().origin() + path;
    List<Condition> conditions = new ArrayList<>();
    if (matching.isOn(Part.QUERY)) {
      Query query = recorded.uri().query();
      for (String name : query.names()) {
        if (!matching.ignoredQuery().contains(name)) {
          query.all(name).forEach(value -> conditions.add(Conditions.query(name, is(value))));
        }
      }
    }
    for (String header : matching.headers()) {
      recorded
          .headers()
          .first(header)
          .ifPresent(value -> conditions.add(Conditions.header(header, is(value))));
    }
    boolean compared = matching.isOn(Part.BODY) && matching.comparison().isEmpty();
    if (compared && !recorded.body().isEmpty()) {
      conditions.add(new RecordedBody(recorded, CassetteInternals.ignoredInBody(matching)));
    }
    return RequestPattern.of(line).where(conditions.toArray(Condition[]::new));
  }

  private static String path(Request recorded, Matching matching) {
    String path = recorded.uri().path();
    String template = VaryingPath.of(path, matching.varyingPaths());
    return template.equals(path) ? literal(path) : template;
  }

  /** Escapes braces in a path, which are not variables here. */
  private static String literal(String path) {
    return path.replace("{", "%7B").replace("}", "%7D").replace("*", "%2A");
  }
}
