// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.cassette.Redaction;
import java.util.List;
import java.util.Map;
import picocli.CommandLine.Option;

/** Options for secrets besides the defaults. */
final class RedactionOptions {

  @Option(
      names = "--secret",
      paramLabel = "NAME=VALUE",
      description =
          "A secret, wherever it occurs. NAME= alone takes the value from the environment variable"
              + " of that name, so that it is in no shell history. Can be repeated.")
  private Map<String, String> secrets = Map.of();

  @Option(
      names = "--secret-name",
      paramLabel = "NAME",
      description = "A header, parameter or member whose value is secret. Can be repeated.")
  private List<String> names = List.of();

  @Option(
      names = "--not-secret",
      paramLabel = "NAME",
      description = "A name whose value is not secret, though it is by default. Can be repeated.")
  private List<String> spared = List.of();

  @Option(
      names = "--allow",
      paramLabel = "TEXT",
      description = "A text that looks like a secret but is not. Can be repeated.")
  private List<String> allowed = List.of();

  Redaction redaction() {
    Redaction redaction = Redaction.byDefault();
    for (Map.Entry<String, String> secret : secrets.entrySet()) {
      String value = Secrets.value(secret.getKey(), secret.getValue());
      try {
        redaction = redaction.secret(secret.getKey(), value);
      } catch (IllegalArgumentException unusable) {
        throw new WrongUsage("--secret " + secret.getKey() + ": " + unusable.getMessage());
      }
    }
    if (!names.isEmpty()) {
      redaction = redaction.alsoNamed(names.toArray(String[]::new));
    }
    if (!spared.isEmpty()) {
      redaction = redaction.except(spared.toArray(String[]::new));
    }
    return allowed.isEmpty() ? redaction : redaction.allowing(allowed.toArray(String[]::new));
  }
}
