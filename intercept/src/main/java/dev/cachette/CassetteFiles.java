package dev.cachette;

import dev.cachette.answer.ResponseAnswer;
import dev.cachette.cassette.Cassette;
import dev.cachette.internal.cassette.RecordedAnswers;
import dev.cachette.internal.disk.CassetteFile;
import dev.cachette.internal.disk.CassetteName;
import java.nio.file.Path;

/**
 * Reads cassettes, and HAR files of other programs, to look at them, compare them, and answer with
 * them:
 *
 * <pre>{@code
 * net.stub("GET https://tides.example/v1/stations/{station}/tides")
 *     .answer(recorded("harbour/arrival", "GET .../tides").replacing("$.high[0]", "05:00"));
 * }</pre>
 */
public final class CassetteFiles {

  private CassetteFiles() {}

  /**
   * A whole cassette, in memory.
   *
   * @throws IllegalArgumentException if the file is null
   * @throws dev.cachette.cassette.CassetteException if it is missing or damaged; the message names
   *     the place
   */
  public static Cassette read(Path file) {
    if (file == null) {
      throw new IllegalArgumentException("CassetteFiles.read(file) was given null.");
    }
    return CassetteFile.read(file);
  }

  /**
   * A recorded response as an answer, from a cassette in the folder {@code src/test/cassettes}.
   *
   * @see #recorded(Path, String)
   */
  public static ResponseAnswer recorded(String cassette, String requestLine) {
    return recorded(CassetteName.in(Settings.CASSETTES, cassette), requestLine);
  }

  /**
   * The first response to a request in a cassette, as an answer. Its content coding is undone; its
   * parts can be replaced as those of any answer. Markers stay as they are.
   *
   * @param requestLine as of a stub; or with three dots for the beginning of the URL, as in {@code
   *     GET .../tides}
   * @throws IllegalArgumentException if an argument is null or the line is malformed
   * @throws dev.cachette.cassette.CassetteException if the file is missing or damaged, or if there
   *     is no such exchange, or several with other URLs; the message lists them
   */
  public static ResponseAnswer recorded(Path cassette, String requestLine) {
    if (requestLine == null) {
      throw new IllegalArgumentException("recorded(cassette, requestLine) has no request line.");
    }
    return RecordedAnswers.of(read(cassette), requestLine);
  }
}
