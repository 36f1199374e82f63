// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases.run;

import dev.cachette.http.Request;
import dev.cachette.http.Response;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.stream.Collectors;

/** The cookies that an application has set (RFC 6265), for the later steps of a session. */
final class CookieJar {

  private final Map<String, String> values = new HashMap<>();

  /** Keeps what a response sets. */
  void keep(Response response) {
    for (String each : response.headers().all("set-cookie")) {
      String[] pair = each.split(";")[0].split("=", 2);
      if (pair.length == 2) {
        values.put(pair[0].strip(), pair[1].strip());
      }
    }
  }

  /** Returns a request with the values of now for the cookies that it sends. */
  Request in(Request request) {
    if (values.isEmpty() || !request.headers().has("cookie")) {
      return request;
    }
    String[] changed =
        request.headers().all("cookie").stream().map(this::changed).toArray(String[]::new);
    return new Request(
        request.method(), request.uri(), request.headers().with("cookie", changed), request.body());
  }

  private String changed(String cookies) {
    return Arrays.stream(cookies.split(";"))
        .map(String::strip)
        .map(
            pair -> {
              String name = pair.split("=", 2)[0];
              return values.containsKey(name) ? name + "=" + values.get(name) : pair;
            })
        .collect(Collectors.joining("; "));
  }
}
