// SPDX-License-Identifier: Apache-2.0
package dev.cachette.verification;

import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.text.Escapes;
import dev.cachette.verification.Compatibility.Cell;
import dev.cachette.verification.Compatibility.Pair;
import dev.cachette.verification.Compatibility.Version;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;

/** Renders compatibility as a page: one HTML file that needs no other, and no JavaScript. */
public final class CompatibilityPage {

  private CompatibilityPage() {}

  /** Returns the page. */
  public static String of(Compatibility compatibility) {
    Refusals.given("of(compatibility)", compatibility);
    StringBuilder tables = new StringBuilder();
    compatibility.pairs().forEach(it -> table(it, tables));
    if (compatibility.pairs().isEmpty()) {
      tables.append("<p>The store has no contracts.</p>\n");
    }
    return resource("compatibility.html")
        .replace("{style}", resource("compatibility.css"))
        .replace("{tables}", tables);
  }

  private static void table(Pair pair, StringBuilder html) {
    String title = pair.consumer() + " with " + pair.provider();
    html.append("<section>\n<h2>").append(text(title)).append("</h2>\n");
    html.append("<div class=\"wide\" role=\"region\" tabindex=\"0\" aria-label=\"")
        .append(text(title))
        .append("\"><table>\n<thead><tr><th scope=\"col\">")
        .append(text(pair.consumer()))
        .append("</th>");
    pair.providerVersions().forEach(it -> heading("col", pair.provider() + "@", it, html));
    html.append("</tr></thead>\n<tbody>\n");
    for (Version row : pair.consumerVersions()) {
      html.append("<tr>");
      heading("row", "@", row, html);
      pair.providerVersions().forEach(column -> cell(pair.cell(row, column), html));
      html.append("</tr>\n");
    }
    html.append("</tbody></table></div>\n");
    if (pair.providerVersions().isEmpty()) {
      html.append("<p>").append(text(pair.provider())).append(" was not verified yet.</p>\n");
    }
    reasons(pair, html);
    html.append("</section>\n");
  }

  private static void heading(String scope, String before, Version version, StringBuilder html) {
    html.append("<th scope=\"").append(scope).append("\">").append(text(before + version.number()));
    for (String label : version.labels()) {
      html.append(" <span class=\"label\">").append(text(label)).append("</span>");
    }
    html.append("</th>");
  }

  private static void cell(Cell cell, StringBuilder html) {
    html.append("<td class=\"")
        .append(cell.outcome().name().toLowerCase(Locale.ROOT))
        .append("\">")
        .append(CompatibilityText.word(cell.outcome()));
    cell.at()
        .ifPresent(
            it ->
                html.append(" <time datetime=\"")
                    .append(it)
                    .append("\">")
                    .append(CompatibilityText.time(it))
                    .append("</time>"));
    html.append("</td>");
  }

  private static void reasons(Pair pair, StringBuilder html) {
    List<Cell> unmet = pair.cells().stream().filter(it -> !it.unmet().isEmpty()).toList();
    for (Cell cell : unmet) {
      html.append("<h3>")
          .append(
              text(
                  String.format(
                      "%s@%s does not meet %s@%s",
                      pair.provider(),
                      cell.providerVersion(),
                      pair.consumer(),
                      cell.consumerVersion())))
          .append("</h3>\n<ul>\n");
      cell.unmet().forEach(it -> html.append("<li>").append(text(it)).append("</li>\n"));
      html.append("</ul>\n");
    }
  }

  private static String text(String text) {
    return Escapes.xml(text);
  }

  private static String resource(String name) {
    try (InputStream in = CompatibilityPage.class.getResourceAsStream(name)) {
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    } catch (IOException unreadable) {
      throw new UncheckedIOException(unreadable);
    }
  }
}
