package dev.cachette.cli;

import dev.cachette.cassette.Redaction;
import dev.cachette.internal.cassette.Recordings;
import dev.cachette.internal.cassette.Scrubbing;
import dev.cachette.internal.disk.CassetteFile;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code cachette scrub}. */
@Command(
    name = "scrub",
    mixinStandardHelpOptions = true,
    description = {
      "Takes secrets out of cassettes and of HAR files of other programs.",
      "The rules are those of recording. Everything else in the files stays as it is."
    },
    footerHeading = "%nExample:%n",
    footer = "  cachette scrub export.har --to harbour.har --secret TIDES_KEY=")
final class Scrub implements Callable<Integer> {

  @Mixin private Output output;
  @Mixin private RedactionOptions rules;

  @Parameters(arity = "1..*", paramLabel = "FILE", description = "The files.")
  private List<Path> files;

  @Option(
      names = "--to",
      paramLabel = "FILE",
      description = "Write here; without it, each file is written in its place.")
  private @Nullable Path target;

  @Override
  public Integer call() {
    if (target != null && files.size() > 1) {
      throw new WrongUsage(
          "--to takes the result of one file, and " + files.size() + " are given.");
    }
    Redaction redaction = rules.redaction();
    List<Object> results = new ArrayList<>();
    boolean clean = true;
    for (Path file : files) {
      clean &= scrub(file, redaction, results);
    }
    if (output.isJson()) {
      output.json(results);
    }
    return clean ? 0 : Tool.DOES_NOT_HOLD;
  }

  /** Of what stands in the file now, where it is written in its place. */
  private Scrubbing inPlaceOf(Scrubbing scrubbing, Recordings current, Redaction redaction) {
    return target == null ? new Scrubbing(current, redaction) : scrubbing;
  }

  private boolean scrub(Path file, Redaction redaction, List<Object> results) {
    try (CassetteOnDisk cassette = new CassetteOnDisk(file)) {
      Scrubbing scrubbing = new Scrubbing(cassette.recordings(), redaction);
      List<String> left = scrubbing.suspicious();
      if (target != null || scrubbing.changed() > 0) {
        new CassetteFile(target == null ? file : target)
            .save((current, out) -> inPlaceOf(scrubbing, current, redaction).writeTo(out));
      }
      int changed = scrubbing.changed();
      if (output.isJson()) {
        results.add(
            Map.of("file", file.toString(), "exchangesWithSecrets", changed, "suspicious", left));
      } else {
        output.result(
            String.format(
                "%s: secrets taken out of %d of %d exchanges",
                file, changed, cassette.exchanges().size()));
        left.forEach(output::result);
      }
      if (!left.isEmpty()) {
        output.remark(
            "What is listed still looks like a secret. Mend: name its place with --also-named, or "
                + "its value with --secret; or --allow it.");
      }
      return left.isEmpty();
    }
  }
}
