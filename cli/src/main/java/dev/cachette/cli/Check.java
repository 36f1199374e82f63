package dev.cachette.cli;

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
    List<Finding> findings = new ArrayList<>();
    for (Path file : files) {
      switch (GivenFile.of(file)) {
        case CASSETTE ->
            findings.addAll(CassetteCheck.of(file, rules.redaction(), staleAfter, descriptions));
        case STUBS -> findings.addAll(StubFileCheck.of(file, descriptions));
        case DESCRIPTION -> findings.addAll(DescriptionFileCheck.of(file));
        default ->
            throw new Failure(
                file
                    + " is neither a cassette (.har), nor a stub file or description (.yaml, .yml, "
                    + ".json).");
      }
    }
    if (output.isJson()) {
      output.json(findings);
    } else {
      findings.forEach(finding -> output.result(finding.toString()));
    }
    output.remark(
        String.format(
            "%d %s checked, %s",
            files.size(),
            files.size() == 1 ? "file" : "files",
            findings.isEmpty()
                ? "nothing found"
                : findings.size() + (findings.size() == 1 ? " finding" : " findings")));
    return findings.isEmpty() ? 0 : Tool.DOES_NOT_HOLD;
  }
}
