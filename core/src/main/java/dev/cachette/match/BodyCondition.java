// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import dev.cachette.internal.content.Content;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;

/**
 * A condition on the content of a request, or of one part of a multipart request. Created by {@link
 * Bodies}. The content is decoded from its content encoding and charset first.
 *
 * <p>Immutable and safe to share between threads.
 */
public abstract class BodyCondition extends BuiltInCondition {

  BodyCondition() {}

  /** Returns its name in explanations: {@code body}, {@code json $.vessel.name}. */
  abstract String name();

  /** Returns the expected content, in a few words. */
  abstract String expected();

  abstract Check check(Content content);

  @Override
  public final Check check(Received received) {
    return check(received.content());
  }

  @Override
  public final String description() {
    return name() + ": " + expected();
  }

  @Override
  public final String toString() {
    return description();
  }

  /** Returns the failed check for content that cannot be read in the expected format. */
  final Check unreadable(String problem) {
    return Check.missed(name(), 0.1, Difference.of(expected(), problem));
  }
}
