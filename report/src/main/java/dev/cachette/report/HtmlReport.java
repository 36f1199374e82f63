// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Base64;

/**
 * The report as one page, which needs nothing else. What callers sent is data of its script, never
 * markup, and its policy (CSP) runs no other script.
 */
final class HtmlReport {

  private HtmlReport() {}

  static String of(JsonNode run) throws IOException {
    String script = resource("report.js");
    String style = resource("report.css");
    String policy =
        String.format(
            "default-src 'none'; script-src 'sha256-%s'; style-src 'sha256-%s'; base-uri 'none';"
                + " form-action 'none'; require-trusted-types-for 'script'; trusted-types 'none'",
            digest(script), digest(style));
    return resource("report.html")
        .replace("{policy}", policy)
        .replace("{style}", style)
        .replace("{script}", script)
        .replace("{run}", embedded(ShortRun.of(run).toString()));
  }

  /** Nothing in the JSON ends the element that it is in, or begins a comment. */
  private static String embedded(String json) {
    return json.replace("<", "\\u003c").replace("\u2028", "\\u2028").replace("\u2029", "\\u2029");
  }

  private static String resource(String name) throws IOException {
    try (InputStream in = HtmlReport.class.getResourceAsStream(name)) {
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    }
  }

  private static String digest(String text) {
    try {
      byte[] digest =
          MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8));
      return Base64.getEncoder().encodeToString(digest);
    } catch (NoSuchAlgorithmException impossible) {
      throw new IllegalStateException(impossible);
    }
  }
}
