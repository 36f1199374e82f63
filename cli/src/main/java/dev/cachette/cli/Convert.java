// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.cassette.Redaction;
import dev.cachette.internal.cassette.FileRedaction;
import dev.cachette.internal.stubfile.StubWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.Writer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.stream.IntStream;
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
    GivenFile kind = GivenFile.of(file);
    if (kind == GivenFile.CASSETTE) {
      ofCassette();
    } else if (kind == GivenFile.STUBS) {
      ofStubs();
    } else {
      write(StubsOfLines.of(file, output::remark));
    }
    return 0;
  }

  private void ofCassette() throws IOException {
    if (into == Into.CASSETTE) {
      throw new WrongUsage(file + " is a cassette already.");
    }
    if (target != null && Files.exists(target) && Files.isSameFile(file, target)) {
      throw new WrongUsage(target + " is the cassette itself. Fix: another name after --to.");
    }
    try (CassetteOnDisk cassette = new CassetteOnDisk(file, output);
        ParallelEntries parallel = new ParallelEntries()) {
      int size = cassette.exchanges().size();
      if (exchange != null && (exchange < 1 || exchange > size)) {
        throw new Failure(String.format("there is no exchange %d in %s.", exchange, file));
      }
      FileRedaction redaction =
          parallel.lookAt(cassette.recordings(), Redaction.byDefault(), FileRedaction::lookAt);
      List<Integer> wanted =
          exchange == null ? IntStream.range(0, size).boxed().toList() : List.of(exchange - 1);
      if (into == Into.JAVA) {
        String java = JavaOfExchanges.of(wanted.stream().map(redaction::exchange).toList());
        write(output.isJson() ? Output.asJson(Map.of("java", java)) : java);
      } else {
        StubsOfCassette stubs = new StubsOfCassette(redaction, parallel, output::remark);
        stubs.write(wanted, isJson(), this::write);
        stubs.placeholders().forEach(this::tellOfSecret);
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
  private boolean isJson() {
    return output.isJson() || target != null && target.toString().endsWith(".json");
  }

  private void write(ObjectNode stubs) throws IOException {
    write(isJson() ? Output.asJson(stubs) : StubWriter.yaml(stubs));
  }

  private void write(String text) throws IOException {
    write(List.of(text));
  }

  /** Writes the parts of a text. */
  private void write(Iterable<String> parts) throws IOException {
    if (target == null) {
      boolean isLineEnd = false;
      for (String part : parts) {
        output.part(part);
        isLineEnd = part.isEmpty() ? isLineEnd : part.endsWith("\n");
      }
      output.part(isLineEnd ? "" : "\n");
      return;
    }
    // First elsewhere, so that the target keeps its content if something fails; then into it, as it
    // may be a link or a pipe, and has permissions.
    Path finished = Files.createTempFile("cachette", ".part");
    try {
      writeTo(finished, parts);
      try (OutputStream out = Files.newOutputStream(target)) {
        Files.copy(finished, out);
      }
    } finally {
      Files.deleteIfExists(finished);
    }
    output.remark("written to " + target);
  }

  private static void writeTo(Path path, Iterable<String> parts) throws IOException {
    try (Writer out = Files.newBufferedWriter(path)) {
      for (String part : parts) {
        out.write(part);
      }
    }
  }
}
