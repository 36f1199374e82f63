// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.tooling.CassetteConversion;
import dev.cachette.tooling.CassetteOnDisk;
import dev.cachette.tooling.FileKind;
import dev.cachette.tooling.RequestLines;
import dev.cachette.tooling.StubFileConversion;
import dev.cachette.tooling.StubFormat;
import java.io.IOException;
import java.io.OutputStream;
import java.io.Writer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
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
    FileKind kind = FileKind.of(file);
    if (kind == FileKind.CASSETTE) {
      ofCassette();
    } else if (kind == FileKind.STUBS) {
      ofStubs();
    } else {
      write(List.of(RequestLines.toStubs(file, format(), output::remark)));
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
    Set<String> placeholders = new TreeSet<>();
    try (CassetteOnDisk cassette = new CassetteOnDisk(file, output::notice);
        CassetteConversion conversion =
            exchange == null
                ? CassetteConversion.of(cassette)
                : CassetteConversion.of(cassette, exchange)) {
      if (into == Into.JAVA) {
        String java = conversion.toJava();
        write(List.of(output.isJson() ? Output.asJson(Map.of("java", java)) : java));
      } else {
        write(conversion.toStubs(format(), placeholders, output::remark));
      }
    }
    placeholders.forEach(this::tellOfSecret);
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
    int count = StubFileConversion.toCassette(file, target, output::remark);
    if (output.isJson()) {
      output.json(Map.of("file", target.toString(), "exchanges", count));
    }
    output.remark(count + (count == 1 ? " exchange" : " exchanges") + " written to " + target);
  }

  /** Uses JSON if requested, or if the file name says so; else YAML. */
  private StubFormat format() {
    boolean isJson = output.isJson() || target != null && target.toString().endsWith(".json");
    return isJson ? StubFormat.JSON : StubFormat.YAML;
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
