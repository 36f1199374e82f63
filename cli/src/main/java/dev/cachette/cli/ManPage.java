// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Help;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;
import picocli.CommandLine.Spec;

/** {@code cachette man}: the manual page, in the macros of man(7). */
@Command(
    name = "man",
    mixinStandardHelpOptions = true,
    description = "Print the manual page, as man(1) reads it.",
    footerHeading = "%nExamples:%n",
    footer = {"  cachette man | man -l -", "  cachette man > ~/.local/share/man/man1/cachette.1"})
final class ManPage implements Callable<Integer> {

  @Spec private CommandSpec command;

  private final StringBuilder page = new StringBuilder();

  @Override
  public Integer call() {
    CommandSpec tool = command.parent();
    page.append(".TH CACHETTE 1 \"\" \"").append(text(new Tool.Version().getVersion()[0]));
    page.append("\" \"Cachette\"\n.SH NAME\ncachette \\- ");
    line(tool.usageMessage().description());
    page.append(".SH SYNOPSIS\n.B cachette\n.I COMMAND\n[\\fIOPTION\\fR ...] [\\fIFILE\\fR ...]\n");
    page.append(".SH COMMANDS\n");
    for (Map.Entry<String, CommandLine> each : tool.subcommands().entrySet()) {
      CommandSpec spec = each.getValue().getCommandSpec();
      if (!spec.usageMessage().hidden()) {
        command(spec);
      }
    }
    page.append(".SH EXIT STATUS\n");
    tool.usageMessage().exitCodeList().forEach((code, meaning) -> item(code, meaning));
    page.append(".SH FILES\n");
    item("~/.cachette/authority.pem", "The certificate authority for HTTPS, created at first use.");
    page.append(".SH ENVIRONMENT\n");
    item("NO_COLOR", "If it is set, no colours are used.");
    command.commandLine().getOut().print(page);
    command.commandLine().getOut().flush();
    return 0;
  }

  private void command(CommandSpec spec) {
    page.append(".SS ").append(text(spec.name())).append('\n');
    line(spec.usageMessage().description());
    for (PositionalParamSpec each : spec.positionalParameters()) {
      item(each.paramLabel(), String.join(" ", each.description()));
    }
    for (OptionSpec each : spec.options()) {
      if (!each.hidden() && !each.usageHelp() && !each.versionHelp()) {
        String value = each.arity().max() == 0 ? "" : " " + each.paramLabel();
        item(String.join(", ", each.names()) + value, String.join(" ", each.description()));
      }
    }
    List<String> examples =
        List.of(spec.usageMessage().footer()).stream().filter(it -> !it.isBlank()).toList();
    if (!examples.isEmpty()) {
      page.append(".PP\n").append(heading(spec)).append("\n.PP\n.nf\n");
      examples.forEach(it -> page.append(text(it.stripTrailing())).append('\n'));
      page.append(".fi\n");
    }
  }

  private static String heading(CommandSpec spec) {
    String heading =
        String.format(Locale.ROOT, String.join("", spec.usageMessage().footerHeading()));
    return text(heading.strip());
  }

  private void line(String... description) {
    page.append(text(String.join(" ", description))).append('\n');
  }

  private void item(String term, String description) {
    page.append(".TP\n.B ").append(text(term)).append('\n').append(text(description)).append('\n');
  }

  /** Escapes what has a meaning in the language of man pages. */
  private static String text(String plain) {
    String printed = Help.Ansi.OFF.string(plain);
    String escaped = printed.replace("\\", "\\e").replace("-", "\\-").replace("'", "\\(aq");
    return escaped.startsWith(".") ? "\\&" + escaped : escaped;
  }
}
