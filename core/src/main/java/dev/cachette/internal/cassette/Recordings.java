package dev.cachette.internal.cassette;

import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.Exchange;
import dev.cachette.internal.json.Json;
import java.util.AbstractList;
import java.util.Locale;

/** The exchanges of a file, each read when it is asked for. Safe to share if its texts are. */
public final class Recordings extends AbstractList<Exchange> {

  private final HarIndex index;
  private final Texts texts;

  /** Reads entries out of the file that they were indexed in. */
  @FunctionalInterface
  public interface Texts {

    /**
     * The text of an entry.
     *
     * @throws CassetteException if the file is not what it was
     */
    String of(HarIndex.Entry entry);
  }

  /** The exchanges of an indexed file. */
  public Recordings(HarIndex index, Texts texts) {
    this.index = index;
    this.texts = texts;
  }

  @Override
  public int size() {
    return index.entries().size();
  }

  /**
   * The exchange at a place.
   *
   * @throws CassetteException if the entry is malformed; the message names the place
   */
  @Override
  public Exchange get(int at) {
    HarIndex.Entry entry = index.entries().get(at);
    try {
      return HarEntry.read(Json.tree(texts.of(entry)));
    } catch (HarEntry.Malformed malformed) {
      throw new CassetteException(
          String.format(
              Locale.ROOT,
              "The cassette %s cannot be read: the entry in line %d, /log/entries/%d%s\n"
                  + "Mend: correct it there, or take the file from version control.",
              index.name(),
              entry.line(),
              at,
              malformed.getMessage()));
    } catch (IllegalArgumentException noJson) {
      throw new CassetteException(
          String.format(
              Locale.ROOT,
              "The cassette %s was changed by another program while it is in use: the entry that "
                  + "began in line %d is not there any more.\nMend: run the test again.",
              index.name(),
              entry.line()),
          noJson);
    }
  }

  /** The line of the file in which an exchange begins, from 1. */
  public int line(int at) {
    return index.entries().get(at).line();
  }

  HarIndex index() {
    return index;
  }

  String text(int at) {
    return texts.of(index.entries().get(at));
  }
}
