// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.Exchange;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.text.JsonStreams;
import java.io.IOException;
import java.util.AbstractList;
import java.util.Locale;
import java.util.Optional;

/** The exchanges of a file, each read on access. Thread-safe if its source of texts is. */
public final class RecordedExchanges extends AbstractList<Exchange> {

  private final HarIndex index;
  private final Texts texts;

  /** Reads entries from the indexed file. */
  @FunctionalInterface
  public interface Texts {

    /**
     * Returns the text of an entry.
     *
     * @throws CassetteException if the file has changed
     */
    String of(HarIndex.Entry entry);
  }

  /** Creates the list of exchanges of an indexed file. */
  public RecordedExchanges(HarIndex index, Texts texts) {
    this.index = index;
    this.texts = texts;
  }

  @Override
  public int size() {
    return index.entries().size();
  }

  /**
   * Returns an exchange.
   *
   * @throws CassetteException if the entry is malformed; the message names the place
   */
  @Override
  public Exchange get(int at) {
    return read(at).exchange();
  }

  /**
   * As {@link #get}, but refuses an exchange whose body was not recorded.
   *
   * @throws CassetteException if there is a size, but no body, or if the entry is malformed
   */
  public Exchange replayable(int at) {
    Read entry = read(at);
    requireBody(at, entry);
    return entry.exchange();
  }

  void requireBody(int at, Read entry) {
    try {
      HarEntry.requireBody(entry.tree());
    } catch (HarEntry.Malformed malformed) {
      throw malformed(at, malformed.getMessage());
    }
  }

  /**
   * An entry of the file.
   *
   * @param tree its JSON
   * @param exchange the exchange
   */
  public record Read(JsonNode tree, Exchange exchange) {}

  /** As {@link #get}, with the JSON of the entry. */
  public Read read(int at) {
    HarIndex.Entry entry = index.entries().get(at);
    try {
      JsonNode tree = tree(texts.of(entry));
      return new Read(tree, HarEntry.read(tree));
    } catch (HarEntry.Malformed malformed) {
      throw malformed(at, malformed.getMessage());
    } catch (IOException noJson) {
      throw new CassetteException(
          String.format(
              Locale.ROOT,
              "The cassette %s was modified by another program while in use: the entry in line %d"
                  + " has moved.\n"
                  + "Fix: run the test again.",
              index.name(),
              entry.line()),
          noJson);
    }
  }

  private static JsonNode tree(String text) throws IOException, HarEntry.Malformed {
    try (JsonParser parser = JsonStreams.refusingDuplicates().createParser(text)) {
      parser.nextToken();
      return Json.tree(parser);
    } catch (JsonProcessingException malformed) {
      if (malformed.getOriginalMessage().startsWith("Duplicate")) {
        throw new HarEntry.Malformed("", "it has a member twice: " + Json.problem(malformed));
      }
      throw malformed;
    }
  }

  private CassetteException malformed(int at, String problem) {
    return new CassetteException(
        String.format(
            Locale.ROOT,
            "The cassette %s cannot be read: the entry in line %d, /log/entries/%d%s\n"
                + "Fix: correct it there, or restore the file from version control.",
            index.name(),
            index.entries().get(at).line(),
            at,
            problem));
  }

  /** Returns the first line of an exchange in the file, from 1. */
  public int line(int at) {
    return index.entries().get(at).line();
  }

  /** Returns a remark on entries that are not calls; empty if there are none. */
  public Optional<String> skipped() {
    return index.skipped();
  }

  public HarIndex index() {
    return index;
  }

  /** Returns the text of an entry. */
  public String text(int at) {
    return texts.of(index.entries().get(at));
  }
}
