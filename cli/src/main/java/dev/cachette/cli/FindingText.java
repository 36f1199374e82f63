// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.tooling.Finding;
import dev.cachette.tooling.TerminalText;
import java.util.Optional;
import picocli.CommandLine.Help.Ansi.IStyle;
import picocli.CommandLine.Help.Ansi.Style;

/**
 * Lays out findings: as they are for a file or pipe; wrapped and in colours for a terminal, unless
 * NO_COLOR is set.
 */
final class FindingText {

  private static final String INDENTATION = "    ";

  /** A narrower terminal is not wrapped for. */
  private static final int NARROWEST = 40;

  private final int width;

  private FindingText(int width) {
    this.width = width;
  }

  /** For a file, or a pipe. */
  static FindingText plain() {
    return new FindingText(0);
  }

  /** For a terminal of this width. */
  static FindingText forTerminal(int width) {
    return new FindingText(Math.max(NARROWEST, width));
  }

  /** Returns the text of a finding, and the source with the mark, if there is one. */
  String of(Finding finding, Optional<String> source) {
    if (width == 0) {
      return TerminalText.of(finding + source.map(lines -> "\n" + lines).orElse(""));
    }
    String place = finding.file() + ":" + finding.line() + ":" + finding.column();
    String path = finding.path().isEmpty() ? "" : finding.path() + ": ";
    StringBuilder text = new StringBuilder(styled(TerminalText.of(place), Style.bold));
    String[] paragraphs = (path + finding.finding()).split("(?= (?:Fix|Allowed): )");
    for (String paragraph : paragraphs) {
      text.append('\n').append(wrapped(TerminalText.of(paragraph.strip())));
    }
    source.ifPresent(lines -> text.append('\n').append(marked(TerminalText.of(lines))));
    return text.append('\n').toString();
  }

  /** Breaks at spaces; a longer word stays whole, so that it can be copied. */
  private String wrapped(String text) {
    StringBuilder lines = new StringBuilder(INDENTATION);
    int column = INDENTATION.length();
    for (String word : text.split(" ")) {
      boolean first = column == INDENTATION.length();
      if (!first && column + 1 + word.length() > width) {
        lines.append('\n').append(INDENTATION);
        column = INDENTATION.length();
        first = true;
      }
      lines.append(first ? "" : " ").append(word);
      column += word.length() + (first ? 0 : 1);
    }
    return lines.toString();
  }

  /** The source is faint, its mark is not. */
  private static String marked(String source) {
    int end = source.lastIndexOf('\n');
    String mark = source.substring(end + 1);
    int at = mark.indexOf('^');
    return styled(source.substring(0, end), Style.faint)
        + "\n"
        + styled(mark.substring(0, at), Style.faint)
        + styled("^", Style.bold, Style.fg_red);
  }

  private static String styled(String text, IStyle... styles) {
    return Style.on(styles) + text + Style.off(styles) + Style.reset.off();
  }
}
