// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Objects;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;

/** {@code cachette schema}. */
@Command(
    name = "schema",
    mixinStandardHelpOptions = true,
    description = {
      "Print the JSON Schema of stub files, or of identity files.",
      "Editors complete and check such files with it."
    },
    footerHeading = "%nExamples:%n",
    footer = {
      "  cachette schema > stubs.schema.json",
      "  cachette schema identity > identity.schema.json",
      "",
      "In the first line of a stub file beside it:",
      "  # yaml-language-server: $schema=stubs.schema.json"
    })
final class SchemaCommand implements Callable<Integer> {

  @Mixin private Output output;

  @Parameters(
      arity = "0..1",
      paramLabel = "KIND",
      description = "The kind of file: ${COMPLETION-CANDIDATES}; stubs by default.")
  private Kind kind = Kind.stubs;

  /** The kinds of files, as they are written on the command line. */
  enum Kind {
    stubs,
    identity
  }

  @Override
  public Integer call() throws IOException {
    try (InputStream schema =
        Objects.requireNonNull(
            Tool.class.getResourceAsStream("/cachette-" + kind + ".schema.json"))) {
      output.part(new String(schema.readAllBytes(), StandardCharsets.UTF_8));
    }
    return 0;
  }
}
