// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.identity.IdentityFile;
import dev.cachette.stubfile.StubFileException;
import dev.cachette.tooling.Descriptions;
import dev.cachette.tooling.FileCheck;
import dev.cachette.tooling.FileKind;
import dev.cachette.tooling.Finding;
import dev.cachette.tooling.ToolingException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code cachette check}. */
@Command(
    name = "check",
    mixinStandardHelpOptions = true,
    description = {
      "Check stub files, contracts and identity files (.yaml, .yml, .json), cassettes (.har) and"
          + " OpenAPI descriptions.",
      "Reports files that cannot be read, secrets, stale recordings, duplicate exchanges,"
          + " unreachable stubs, and invalid examples; with an API description, also requests and"
          + " responses that violate it, and what a contract needs that it does not promise."
    },
    footerHeading = "%nExamples:%n",
    footer = {
      "  cachette check src/test/stubs/*.yaml src/test/cassettes/harbour/*.har",
      "  cachette check harbour.stubs.yaml --openapi berths.openapi.yaml",
      "  cachette check harbour-desk--berths.contract.yaml --openapi berths.openapi.yaml --unused"
    })
final class CheckCommand implements Callable<Integer> {

  @Mixin private Output output;
  @Mixin private RedactionOptions rules;

  @Parameters(arity = "1..*", paramLabel = "FILE", description = "The files.")
  private List<Path> files;

  @Option(
      names = "--stale-after",
      paramLabel = "TIME",
      converter = DurationReader.class,
      description = "Report cassettes that are older: 90d.")
  private @Nullable Duration staleAfter;

  @Option(
      names = "--openapi",
      paramLabel = "[ORIGIN=]FILE",
      description =
          "Check requests and responses against this API description, OpenAPI 3.0 to 3.2, at its"
              + " servers or at ORIGIN. Can be repeated.")
  private List<String> openapi = List.of();

  @Option(
      names = "--unused",
      description =
          "Also report what no consumer uses of the API descriptions, if all files are contracts:"
              + " operations, responses, and members of responses.")
  private boolean unused;

  @Override
  public Integer call() {
    if (unused && openapi.isEmpty()) {
      throw new WrongUsage("--unused needs an API description. Fix: --openapi FILE.");
    }
    FileCheck check = check();
    List<Finding> findings = new ArrayList<>();
    int checked = 0;
    for (Path file : files) {
      try {
        findings.addAll(isIdentityFile(file) ? problems(file) : check.of(file, output::notice));
        checked++;
      } catch (ToolingException | UncheckedIOException unreadable) {
        // The other files are still worth checking.
        output.error(Failure.line(unreadable));
      }
    }
    if (unused && checked == files.size()) {
      findings.addAll(check.unused(files));
    }
    if (checked > 0) {
      tell(findings, checked);
    }
    if (checked < files.size()) {
      return Tool.IMPOSSIBLE;
    }
    return findings.isEmpty() ? 0 : Tool.DOES_NOT_HOLD;
  }

  private static boolean isIdentityFile(Path file) {
    return FileKind.of(file) == FileKind.STUBS && IdentityFile.isOne(file);
  }

  private static List<Finding> problems(Path file) {
    try {
      IdentityFile.read(file);
      return List.of();
    } catch (StubFileException wrong) {
      return wrong.problems().stream()
          .map(it -> new Finding(it.file(), it.line(), it.column(), it.path(), it.message()))
          .toList();
    }
  }

  private FileCheck check() {
    Descriptions descriptions = Descriptions.none();
    for (String each : openapi) {
      descriptions = with(descriptions, each);
    }
    FileCheck check = FileCheck.defaults().redaction(rules.redaction()).describedBy(descriptions);
    return staleAfter == null ? check : check.staleAfter(staleAfter);
  }

  /** Reads a file, or an origin with a file: {@code https://berths.example=berths.yaml}. */
  private static Descriptions with(Descriptions others, String given) {
    int equals = given.contains("://") ? given.indexOf('=') : -1;
    Path file = Path.of(given.substring(equals + 1));
    if (equals < 0) {
      if (Descriptions.originsOf(file).isEmpty()) {
        throw new Failure(
            file
                + " has no server with a host. Fix: give its origin: --openapi"
                + " https://berths.example="
                + file);
      }
      return others.with(file);
    }
    try {
      return others.with(given.substring(0, equals), file);
    } catch (IllegalArgumentException malformed) {
      throw new WrongUsage("--openapi: " + malformed.getMessage());
    }
  }

  private void tell(List<Finding> findings, int checked) {
    if (output.isJson()) {
      output.json(findings);
    } else {
      List<Optional<String>> sources = SourceLines.of(findings);
      FindingText layout = output.layout();
      for (int at = 0; at < findings.size(); at++) {
        output.styled(layout.of(findings.get(at), sources.get(at)));
      }
    }
    output.remark(
        String.format(
            "%s%d %s checked, %s",
            checked < files.size() ? checked + " of " : "",
            files.size(),
            files.size() == 1 ? "file" : "files",
            findings.isEmpty()
                ? "no problems found"
                : findings.size() + (findings.size() == 1 ? " finding" : " findings")));
  }
}
