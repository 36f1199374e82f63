package dev.cachette.cli;

import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.cassette.Exchange;
import dev.cachette.internal.cassette.Redactor;
import dev.cachette.internal.stubfile.StubWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code cachette convert}. */
@Command(
    name = "convert",
    mixinStandardHelpOptions = true,
    description = "Convert between cassettes, stub files, curl commands and Java code.",
    footerHeading = "%nExamples:%n",
    footer = {
      "  cachette convert arrival.har > harbour.stubs.yaml",
      "  cachette convert arrival.har --exchange 3 --format java",
      "  cachette convert harbour.stubs.yaml --to harbour.har",
      "  cachette convert calls.txt     # lines METHOD URL, or curl commands"
    })
final class Convert implements Callable<Integer> {

  /** The target formats. */
  enum Into {
    /** A stub file. */
    STUBS,
    /** A cassette. */
    CASSETTE,
    /** A stub in Java. */
    JAVA
  }

  @Mixin private Output output;

  @Parameters(
      paramLabel = "FILE",
      description =
          "A cassette (.har), a stub file (.yaml, .yml, .json), or a text file with commands.")
  private Path file;

  @Option(
      names = "--format",
      paramLabel = "WHAT",
      description = "stubs, cassette or java; by default stubs, but cassette for a stub file.")
  private @Nullable Into into;

  @Option(
      names = "--exchange",
      paramLabel = "N",
      description = "Only this exchange of the cassette.")
  private @Nullable Integer exchange;

  @Option(
      names = "--to",
      paramLabel = "FILE",
      description = "The output file, instead of standard output; required for a cassette.")
  private @Nullable Path target;

  @Override
  public Integer call() throws IOException {
    switch (GivenFile.of(file)) {
      case CASSETTE -> ofCassette();
      case STUBS -> ofStubs();
      default -> write(StubsOfLines.of(file, output::remark));
    }
    return 0;
  }

  private void ofCassette() throws IOException {
    try (CassetteOnDisk cassette = new CassetteOnDisk(file, output)) {
      List<Exchange> wanted = Redactor.redacted(cassette.exchanges());
      if (exchange != null) {
        if (exchange < 1 || exchange > wanted.size()) {
          throw new Failure(String.format("there is no exchange %d in %s.", exchange, file));
        }
        wanted = List.of(wanted.get(exchange - 1));
      }
      if (into == Into.CASSETTE) {
        throw new WrongUsage(file + " is a cassette already.");
      }
      if (into == Into.JAVA) {
        String java = JavaOfExchanges.of(wanted);
        write(output.isJson() ? Output.asJson(Map.of("java", java)) : java);
      } else {
        ObjectNode stubs = StubsOfExchanges.of(wanted, output::remark);
        write(stubs);
        Placeholders.in(stubs.toString()).forEach(this::tellOfSecret);
      }
    }
  }

  private void tellOfSecret(String placeholder) {
    output.remark(
        String.format(
            "{{%s}} is a placeholder for a secret, which callers get literally. Fix: replace it by"
                + " an invented value.",
            placeholder));
  }

  private void ofStubs() {
    if (into != null && into != Into.CASSETTE) {
      throw new WrongUsage("a stub file can only be converted to a cassette.");
    }
    if (target == null) {
      throw new WrongUsage("a cassette needs an output file. Fix: --to " + file + ".har");
    }
    int count = CassetteOfStubs.write(file, target, output::remark);
    if (output.isJson()) {
      output.json(Map.of("file", target.toString(), "exchanges", count));
    }
    output.remark(count + (count == 1 ? " exchange" : " exchanges") + " written to " + target);
  }

  /** Uses JSON if requested, or if the file name says so; else YAML. */
  private void write(ObjectNode stubs) throws IOException {
    boolean json = output.isJson() || target != null && target.toString().endsWith(".json");
    write(json ? Output.asJson(stubs) : StubWriter.yaml(stubs));
  }

  private void write(String text) throws IOException {
    if (target == null) {
      output.result(text);
    } else {
      Files.writeString(target, text);
      output.remark("written to " + target);
    }
  }
}
