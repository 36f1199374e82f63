package dev.cachette.match;

/**
 * A condition on the content of a request, or of one part of a multipart request. Made by {@link
 * Bodies}. Content codings are undone and charsets honoured before it looks.
 *
 * <p>Immutable and safe to share between threads.
 */
public abstract class BodyCondition implements Condition {

  BodyCondition() {}

  /** What explanations call it: {@code body}, {@code json $.vessel.name}. */
  abstract String name();

  /** What is asked for, in a few words. */
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

  /** The check where the content cannot be read as what is asked for. */
  final Check unreadable(String problem) {
    return Check.missed(name(), 0.1, Difference.of(expected(), problem));
  }
}
