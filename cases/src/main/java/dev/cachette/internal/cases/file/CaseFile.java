// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases.file;

import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.cassette.CassetteException;
import dev.cachette.internal.cases.Case;
import dev.cachette.internal.cases.CaseHar;
import dev.cachette.internal.cases.CaseMerge;
import dev.cachette.internal.cassette.HarIndex;
import dev.cachette.internal.cassette.RecordedExchanges;
import dev.cachette.internal.disk.CassetteFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The file of a case, read as a whole.
 *
 * @param path its path
 * @param written its content
 * @param exchanges its entries, to be replayed
 * @param text its text
 */
public record CaseFile(
    Path path, CaseHar.Written written, RecordedExchanges exchanges, String text) {

  private static final String VERSION =
      Optional.ofNullable(CaseFile.class.getPackage().getImplementationVersion()).orElse("dev");

  /**
   * Reads it.
   *
   * @param name the name of the case
   * @throws dev.cachette.cassette.CassetteException if it is not the file of a case
   */
  static CaseFile read(Path path, String name) {
    try (CassetteFile file = new CassetteFile(path)) {
      RecordedExchanges open = file.open();
      Map<HarIndex.Entry, String> texts = new IdentityHashMap<>();
      for (int at = 0; at < open.size(); at++) {
        texts.put(open.index().entries().get(at), open.text(at));
      }
      RecordedExchanges kept = new RecordedExchanges(open.index(), texts::get);
      return new CaseFile(path, CaseHar.read(name, kept), kept, Files.readString(path));
    } catch (IOException unreadable) {
      throw new CassetteException(path + " cannot be read: " + unreadable.getMessage());
    }
  }

  /** Returns the case. */
  public Case content() {
    return written.content();
  }

  /** How a file has changed. */
  public enum Change {
    /** It is new. */
    NEW,
    /** It has other content than before. */
    CHANGED,
    /** It is as it was before. */
    UNCHANGED
  }

  /**
   * Writes a case.
   *
   * @param before the file as it was before; what has not changed in it stays
   * @return how it differs from that
   * @throws dev.cachette.cassette.CassetteException if it cannot be written
   */
  public static Change replace(Path path, Optional<CaseFile> before, Case fresh) {
    CassetteFile file = new CassetteFile(path);
    if (before.isEmpty()) {
      write(file, CaseHar.entries(fresh));
      return Change.NEW;
    }
    Optional<List<ObjectNode>> entries = CaseMerge.merge(before.get().written(), fresh);
    if (entries.isEmpty()) {
      restore(path, before);
      return Change.UNCHANGED;
    }
    write(file, entries.get());
    return Change.CHANGED;
  }

  /** Makes a file as it was before: with its content, or without it. */
  public static void restore(Path path, Optional<CaseFile> before) {
    try {
      if (before.isEmpty()) {
        Files.deleteIfExists(path);
      } else if (!before.get().text().equals(Files.readString(path))) {
        Files.writeString(path, before.get().text());
      }
    } catch (IOException unwritable) {
      throw new CassetteException(path + " cannot be written: " + unwritable.getMessage());
    }
  }

  private static void write(CassetteFile file, List<ObjectNode> entries) {
    file.save((current, out) -> CaseHar.write(out, entries, current, VERSION));
  }
}
