// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.content;

import dev.cachette.http.Request;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** The cookies of a request (RFC 6265 section 4.2). */
public record Cookies(Map<String, List<String>> values) {

  /** Returns the cookies of a request. */
  public static Cookies in(Request request) {
    Map<String, List<String>> values = new LinkedHashMap<>();
    for (String header : request.headers().all("cookie")) {
      for (String each : header.split(";")) {
        String pair = each.strip();
        int equals = pair.indexOf('=');
        if (equals > 0) {
          String value = pair.substring(equals + 1).strip().replaceAll("^\"(.*)\"$", "$1");
          values
              .computeIfAbsent(pair.substring(0, equals).strip(), unused -> new ArrayList<>())
              .add(value);
        }
      }
    }
    return new Cookies(values);
  }

  /** Returns the values of the cookies with a name. */
  public List<String> all(String name) {
    return values.getOrDefault(name, List.of());
  }

  /** Returns the names of the cookies. */
  public Set<String> names() {
    return values.keySet();
  }
}
