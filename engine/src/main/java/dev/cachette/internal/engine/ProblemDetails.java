// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import com.fasterxml.jackson.databind.node.TextNode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import dev.cachette.internal.text.Printable;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * An explanation as problem details (RFC 9457): its first line is the title, the failed checks are
 * the detail. The whole text is there by lines, so that it can be read in a terminal, too.
 */
final class ProblemDetails {

  private static final Pattern CHECKS = Pattern.compile("(?ms)^  NO +(.*?)\\n\\n");

  private ProblemDetails() {}

  static Response of(int status, String explanation) {
    String[] parts = Printable.of(explanation).split("\n+", 2);
    String rest = parts.length < 2 ? "" : parts[1].stripTrailing();
    Matcher checks = CHECKS.matcher(rest + "\n\n");
    String detail = checks.find() ? checks.group(1) : rest;
    String lines = rest.lines().map(line -> "    " + json(line)).collect(Collectors.joining(",\n"));
    String text =
        String.format(
            "{\n"
                + "  \"title\": %s,\n"
                + "  \"status\": %d,\n"
                + "  \"detail\": %s,\n"
                + "  \"explanation\": [\n"
                + "%s\n"
                + "  ]\n"
                + "}\n",
            json(parts[0].strip()), status, json(detail.strip().replaceAll("\\s+", " ")), lines);
    return new Response(
        status, Headers.none().with("content-type", "application/problem+json"), Body.of(text));
  }

  private static String json(String text) {
    return TextNode.valueOf(text).toString();
  }
}
