// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.answer.Answer;
import dev.cachette.answer.Answers;
import dev.cachette.answer.ResponseAnswer;
import java.nio.file.Path;

/** The surroundings of a stub file without files: each has its name, and is not read. */
final class NoFiles implements StubFileResolver {

  @Override
  public ResponseAnswer file(String name) {
    return Answers.file(Path.of(name));
  }

  @Override
  public ResponseAnswer recorded(String cassette, String requestLine) {
    return Answers.text(cassette + ": " + requestLine);
  }

  @Override
  public Answer ready(Answer answer) {
    return answer;
  }

  @Override
  public String writable(String name) {
    return name;
  }

  @Override
  public void requireRealService() {}
}
