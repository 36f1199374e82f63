package dev.cachette.internal.stub;

import dev.cachette.answer.Delivery;
import dev.cachette.answer.Feed;
import dev.cachette.answer.Trouble;
import dev.cachette.http.Body;
import dev.cachette.http.Response;
import java.util.List;
import java.util.Optional;

/**
 * What one call gets, all of it decided.
 *
 * @param response what is sent; empty where a trouble comes in its place
 * @param pieces the body of the response, as it is sent; may be none where another source follows
 * @param isStream whether the length of the body is not said before it
 * @param feed where the body goes on when the test says so
 * @param file the file that the body is sent from
 * @param trouble what goes wrong
 * @param schedule when the parts are sent
 */
public record Reply(
    Optional<Response> response,
    List<Body> pieces,
    boolean isStream,
    Optional<Feed> feed,
    Optional<Delivery.Source> file,
    Optional<Trouble> trouble,
    Schedule schedule) {

  /** Copies the pieces. */
  public Reply {
    pieces = List.copyOf(pieces);
  }

  /** A whole response, at once. */
  public static Reply of(Response response) {
    return new Reply(
        Optional.of(response),
        List.of(response.body()),
        false,
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        Schedule.AT_ONCE);
  }

  /** A body in pieces, with no length said before. */
  static Reply stream(Response response, List<Body> pieces, Optional<Feed> feed, Schedule when) {
    return new Reply(
        Optional.of(response), pieces, true, feed, Optional.empty(), Optional.empty(), when);
  }

  /** What goes wrong in place of a response. */
  static Reply trouble(Trouble trouble, Schedule when) {
    return new Reply(
        Optional.empty(),
        List.of(),
        false,
        Optional.empty(),
        Optional.empty(),
        Optional.of(trouble),
        when);
  }

  Reply in(List<Body> otherPieces, Schedule when) {
    return new Reply(response, otherPieces, isStream, feed, file, trouble, when);
  }

  Reply from(Delivery.Source source) {
    return new Reply(response, List.of(), isStream, feed, Optional.of(source), trouble, schedule);
  }

  Reply with(Trouble itGoesWrong) {
    return new Reply(response, pieces, isStream, feed, file, Optional.of(itGoesWrong), schedule);
  }

  /** Whether it is one response, sent at once and as a whole. */
  public boolean isPlain() {
    return schedule == Schedule.AT_ONCE
        && !isStream
        && trouble.isEmpty()
        && feed.isEmpty()
        && file.isEmpty();
  }
}
