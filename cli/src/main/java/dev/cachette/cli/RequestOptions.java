// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import java.util.List;
import java.util.Map;
import java.util.function.BiConsumer;
import picocli.CommandLine.Option;

/** The options for what is sent besides what a file has. */
final class RequestOptions {

  @Option(
      names = "--header",
      paramLabel = "NAME: VALUE",
      description =
          "A header of each request, instead of that in the file: \"authorization: Bearer ...\"."
              + " Can be repeated.")
  private List<String> headers = List.of();

  @Option(
      names = "--secret",
      paramLabel = "NAME=VALUE",
      description =
          "The value for a placeholder {{NAME}} in requests. NAME= alone takes it from the"
              + " environment variable of that name. Can be repeated.")
  private Map<String, String> secrets = Map.of();

  /** Gives names and values to their receivers. */
  void giveTo(BiConsumer<String, String> header, BiConsumer<String, String> secret) {
    for (String text : headers) {
      int colon = text.indexOf(':');
      if (colon < 1) {
        throw new WrongUsage(
            "--header needs a name and a value: --header \"authorization: Bearer ...\"");
      }
      header.accept(text.substring(0, colon).strip(), text.substring(colon + 1).strip());
    }
    secrets.forEach((name, value) -> secret.accept(name, Secrets.value(name, value)));
  }
}
