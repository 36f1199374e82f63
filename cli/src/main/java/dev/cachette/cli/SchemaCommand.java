// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Objects;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

/** {@code cachette schema}. */
@Command(
    name = "schema",
    mixinStandardHelpOptions = true,
    description = {
      "Print the JSON Schema of stub files.",
      "Editors complete and check stub files with it."
    },
    footerHeading = "%nExample:%n",
    footer = {
      "  cachette schema > stubs.schema.json",
      "",
      "In the first line of a stub file beside it:",
      "  # yaml-language-server: $schema=stubs.schema.json"
    })
final class SchemaCommand implements Callable<Integer> {

  @Mixin private Output output;

  @Override
  public Integer call() throws IOException {
    try (InputStream schema =
        Objects.requireNonNull(Tool.class.getResourceAsStream("/cachette-stubs.schema.json"))) {
      output.part(new String(schema.readAllBytes(), StandardCharsets.UTF_8));
    }
    return 0;
  }
}
