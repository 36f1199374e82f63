package dev.cachette.cli;

import dev.cachette.cassette.Redaction;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
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
      "Checks stub files (.yaml, .yml, .json), cassettes (.har) and OpenAPI descriptions.",
      "What it finds: files that cannot be read; secrets; stale recordings; exchanges that stand "
          + "there twice; stubs that can never answer; examples that do not fit their schema; and, "
          + "given a description, requests that the service would refuse and answers that it "
          + "never gives."
    },
    footerHeading = "%nExamples:%n",
    footer = {
      "  cachette check src/test/stubs/*.yaml src/test/cassettes/harbour/*.har",
      "  cachette check harbour.stubs.yaml --openapi berths.openapi.yaml"
    })
final class Check implements Callable<Integer> {

  @Mixin private Output output;
  @Mixin private RedactionOptions rules;

  @Parameters(arity = "1..*", paramLabel = "FILE", description = "The files.")
  private List<Path> files;

  @Option(
      names = "--stale-after",
      paramLabel = "TIME",
      converter = DurationReader.class,
      description = "Cassettes that are older are a finding: 90d.")
  private @Nullable Duration staleAfter;

  @Option(
      names = "--openapi",
      paramLabel = "[ORIGIN=]FILE",
      description =
          "Hold requests and answers against this description, in OpenAPI 3.0 or 3.1. It is for "
              + "the servers that it names, or for ORIGIN. May be given several times.")
  private List<String> openapi = List.of();

  @Override
  public Integer call() {
    Descriptions descriptions = new Descriptions(openapi);
    Redaction redaction = rules.redaction();
    List<Finding> findings = new ArrayList<>();
    int checked = 0;
    for (Path file : files) {
      try {
        findings.addAll(findings(file, redaction, descriptions));
        checked++;
      } catch (Failure | UncheckedIOException unreadable) {
        // What is in the others is worth knowing all the same.
        output.error(Failure.line(unreadable));
      }
    }
    if (checked > 0) {
      tell(findings, checked);
    }
    if (checked < files.size()) {
      return Tool.IMPOSSIBLE;
    }
    return findings.isEmpty() ? 0 : Tool.DOES_NOT_HOLD;
  }

  private List<Finding> findings(Path file, Redaction redaction, Descriptions descriptions) {
    return switch (GivenFile.of(file)) {
      case CASSETTE -> CassetteCheck.of(file, redaction, staleAfter, descriptions);
      case STUBS -> StubFileCheck.of(file, descriptions);
      case DESCRIPTION -> DescriptionFileCheck.of(file);
      case OTHER ->
          throw new Failure(
              file
                  + " is neither a cassette (.har), nor a stub file or description (.yaml, .yml, "
                  + ".json).");
    };
  }

  private void tell(List<Finding> findings, int checked) {
    if (output.isJson()) {
      output.json(findings);
    } else {
      findings.forEach(finding -> output.result(finding.toString()));
    }
    output.remark(
        String.format(
            "%s%d %s checked, %s",
            checked < files.size() ? checked + " of " : "",
            files.size(),
            files.size() == 1 ? "file" : "files",
            findings.isEmpty()
                ? "nothing found"
                : findings.size() + (findings.size() == 1 ? " finding" : " findings")));
  }
}
