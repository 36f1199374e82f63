// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.answer.ResponseAnswer;
import dev.cachette.cassette.CassetteContent;
import dev.cachette.internal.cassette.RecordedAnswers;
import dev.cachette.internal.disk.CassetteFile;
import dev.cachette.internal.disk.CassetteName;
import dev.cachette.internal.misuse.Refusals;
import java.nio.file.Path;

/**
 * Reads cassettes, and HAR files exported by a browser or another tool, to inspect them, compare
 * them, and use their responses as answers:
 *
 * <pre>{@code
 * net.stub("GET https://tides.example/v1/stations/{station}/tides")
 *     .answer(recorded("harbour/arrival", "GET .../tides").replacing("$.high[0]", "05:00"));
 * }</pre>
 */
public final class CassetteFiles {

  private CassetteFiles() {}

  /**
   * Reads a whole cassette into memory.
   *
   * @throws IllegalArgumentException if the file is null
   * @throws dev.cachette.cassette.CassetteException if it is missing or damaged; the message gives
   *     the place
   */
  public static CassetteContent read(Path file) {
    Refusals.given("CassetteFiles.read(file)", file);
    return CassetteFile.read(file);
  }

  /**
   * Returns a recorded response as an answer, from a cassette in {@code src/test/cassettes}.
   *
   * @see #recorded(Path, String)
   */
  public static ResponseAnswer recorded(String cassette, String requestLine) {
    return recorded(CassetteName.in(Settings.CASSETTES, cassette), requestLine);
  }

  /**
   * Returns the first response to a request in a cassette, as an answer. It is decoded from its
   * content encoding, and can be modified like any answer. Placeholders are not filled.
   *
   * @param requestLine as for a stub; the URL may begin with three dots as a wildcard, as in {@code
   *     GET .../tides}
   * @throws IllegalArgumentException if an argument is null or the line is malformed
   * @throws dev.cachette.cassette.CassetteException if the file is missing or damaged, or if it has
   *     no such exchange, or several with different URLs; the message lists them
   */
  public static ResponseAnswer recorded(Path cassette, String requestLine) {
    if (requestLine == null) {
      throw Refusals.argument("recorded(cassette, requestLine) needs a request line.");
    }
    return RecordedAnswers.of(read(cassette), requestLine);
  }
}
