// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.cassette.Redaction;
import dev.cachette.internal.cassette.FileRedaction;
import dev.cachette.internal.disk.CassetteFile;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/**
 * The result of redacting the secrets in a cassette, or in a HAR file of another tool.
 *
 * @param exchanges the number of exchanges in the file
 * @param changed the number of exchanges with secrets
 * @param likely texts that were redacted because they look like secrets, each with its place
 */
public record CassetteRedaction(int exchanges, int changed, List<String> likely) {

  /** Copies the list. */
  public CassetteRedaction {
    likely = List.copyOf(likely);
  }

  /**
   * Redacts the secrets in a file, by the rules of recording. Everything else in it is unchanged.
   * The file is replaced atomically, and not at all without secrets.
   *
   * @param target the file to write instead; empty to replace the file
   * @param skipped is told of entries that are skipped
   * @throws ToolingException if there is no such file
   * @throws dev.cachette.cassette.CassetteException if it is not a HAR file, or cannot be written
   */
  public static CassetteRedaction of(
      Path file, Optional<Path> target, Redaction rules, Consumer<String> skipped) {
    try (CassetteOnDisk cassette = new CassetteOnDisk(file, skipped);
        ParallelEntries parallel = new ParallelEntries()) {
      FileRedaction result = parallel.lookAt(cassette.recordings(), rules, FileRedaction::lookAt);
      if (target.isPresent() || result.changed() > 0) {
        new CassetteFile(target.orElse(file))
            .save(
                (current, out) -> {
                  boolean isOther = target.isEmpty() && !cassette.isCurrent();
                  FileRedaction now =
                      isOther ? parallel.lookAt(current, rules, FileRedaction::lookAt) : result;
                  now.writeTo(out, parallel.entries(now));
                });
      }
      return new CassetteRedaction(cassette.exchanges().size(), result.changed(), result.likely());
    }
  }
}
