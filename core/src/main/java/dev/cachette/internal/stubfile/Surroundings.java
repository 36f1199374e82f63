package dev.cachette.internal.stubfile;

import dev.cachette.answer.Answer;
import dev.cachette.answer.ResponseAnswer;

/** What a stub file is read in: where the files are that it names, beside itself. */
public interface Surroundings {

  /** The content of a file that is named relative to the stub file, as an answer. */
  ResponseAnswer file(String name);

  /** An answer of a cassette, as {@code CassetteFiles.recorded} has it. */
  ResponseAnswer recorded(String cassette, String requestLine);

  /**
   * An answer with the file read that it names.
   *
   * @throws IllegalArgumentException if it cannot be read
   */
  Answer ready(Answer answer);

  /**
   * The whole path of a file that the bodies of requests are written to.
   *
   * @throws IllegalArgumentException if it cannot be written
   */
  String writable(String name);
}
