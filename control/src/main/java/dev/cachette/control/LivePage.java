// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import static dev.cachette.answer.Answers.classpath;

import dev.cachette.Cachette;
import java.util.List;

/**
 * The live page: files that a browser loads from the root of the control port. All it does is to
 * call the operations of the control port; what callers sent is never part of its markup.
 */
final class LivePage {

  private static final String FOLDER = "dev/cachette/control/page/";

  private static final List<String> FILES =
      List.of(
          "page.css",
          "icon.svg",
          "page.js",
          "api.js",
          "dom.js",
          "calls.js",
          "filter.js",
          "call.js",
          "body.js",
          "xml.js",
          "timeline.js",
          "closest.js",
          "stubs.js",
          "complete.js",
          "sources.js",
          "cases.js",
          "contracts.js",
          "messages.js");

  /** Nothing is loaded from elsewhere, nothing runs but its own files, and nobody frames it. */
  private static final String POLICY =
      "default-src 'none'; script-src 'self'; style-src 'self'; connect-src 'self'; img-src 'self'"
          + " data:; base-uri 'none'; form-action 'none'; frame-ancestors 'none';"
          + " require-trusted-types-for 'script'; trusted-types 'none'";

  private LivePage() {}

  static void addTo(Cachette net) {
    serve(net, "GET /", "index.html");
    FILES.forEach(file -> serve(net, "GET /page/" + file, file));
  }

  private static void serve(Cachette net, String line, String file) {
    net.stub(line)
        .answer(
            classpath(FOLDER + file)
                .header("content-type", type(file))
                .header("content-security-policy", POLICY)
                .header("x-content-type-options", "nosniff")
                .header("referrer-policy", "no-referrer")
                .header("cache-control", "no-cache"));
  }

  private static String type(String file) {
    return switch (file.substring(file.lastIndexOf('.'))) {
      case ".html" -> "text/html; charset=utf-8";
      case ".css" -> "text/css; charset=utf-8";
      case ".svg" -> "image/svg+xml";
      default -> "text/javascript; charset=utf-8";
    };
  }
}
