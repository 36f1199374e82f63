// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.explain;

import dev.cachette.http.Request;
import dev.cachette.result.StubReference;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** Suggests to let calls through to a host that tests seldom stub: metrics, containers. */
final class LetThroughFix {

  private static final Pattern USUAL =
      Pattern.compile(
          "(?:.*[.-])?(?:metrics?|telemetry|otel|otlp|collector|jaeger|zipkin|prometheus|statsd"
              + "|tracing|traces|logs?|logging|apm|sentry|analytics|config-?server|eureka|consul"
              + "|vault|docker|testcontainers?"
              + "|host\\.docker\\.internal|minio|localstack)(?:[.-].*)?"
              + "|(?:10|172\\.(?:1[6-9]|2[0-9]|3[01])|192\\.168)\\..*");

  private LetThroughFix() {}

  /** Returns the fix and what is let through already; empty for other hosts. */
  static String of(Request request, List<StubReference> through) {
    String host = request.uri().host();
    if (!USUAL.matcher(host).matches()) {
      return "";
    }
    String existing =
        through.isEmpty()
            ? "nothing is let through so far"
            : through.stream()
                .map(each -> each.name() + ", " + each.place())
                .collect(Collectors.joining("; "));
    return String.format(
        "Or, if the test does not care: net.letThrough(\"%s\") (%s).\n", host, existing);
  }
}
