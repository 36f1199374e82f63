// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.answer.Answer;
import dev.cachette.answer.ResponseAnswer;

/** For texts that cannot name files: those of contracts, whose content is all in them. */
public final class WithoutFiles implements StubFileResolver {

  private static IllegalArgumentException refused(String what) {
    return new IllegalArgumentException(what + " is not allowed in a contract file.");
  }

  @Override
  public ResponseAnswer file(String name) {
    throw refused("\"file\"");
  }

  @Override
  public ResponseAnswer recorded(String cassette, String requestLine) {
    throw refused("\"recorded\"");
  }

  @Override
  public Answer ready(Answer answer) {
    return answer;
  }

  @Override
  public String writable(String name) {
    throw refused("\"saveBodyTo\"");
  }

  @Override
  public void requireRealService() {
    throw refused("\"realService\"");
  }
}
