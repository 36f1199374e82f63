// SPDX-License-Identifier: Apache-2.0
package dev.cachette.answer;

/** Leaves a call to the next stub that matches; the call counts as a turn nevertheless. */
final class PassingAnswer implements Answer {

  static final PassingAnswer INSTANCE = new PassingAnswer();

  private PassingAnswer() {}

  @Override
  public String toString() {
    return "passed on";
  }
}
