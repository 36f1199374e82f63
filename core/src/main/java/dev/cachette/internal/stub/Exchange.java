package dev.cachette.internal.stub;

import dev.cachette.answer.Answer;
import dev.cachette.answer.ComputedAnswer;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.render.Rendering;
import dev.cachette.match.Received;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * A request that has arrived, on its way to its response. Asked by one thread at a time: first for
 * the response, then told that it was delivered.
 */
public final class Exchange {

  private final Optional<Selected> selected;
  private final Received received;
  private final ContentReader reader;
  private final Function<Exchange, LoggedCall> finish;
  private final Scopes scopes;
  private @Nullable LoggedCall call;

  Exchange(
      Optional<Selected> selected,
      Received received,
      ContentReader reader,
      Scopes scopes,
      Function<Exchange, LoggedCall> finish) {
    this.selected = selected;
    this.received = received;
    this.reader = reader;
    this.scopes = scopes;
    this.finish = finish;
  }

  /** The request. */
  public Request request() {
    return received.request();
  }

  /** Whether {@link #response} runs code of the user's, which may take its time. */
  public boolean runsUserCode() {
    return selected
        .filter(won -> won.answer() instanceof ComputedAnswer || !won.rule().checks().isEmpty())
        .isPresent();
  }

  /** The response. The call is in the log when this returns. */
  public Response response() {
    call = finish.apply(this);
    scopes.log(call);
    return call.response();
  }

  /** Notes that the response was written to its end. */
  public void delivered() {
    if (call != null) {
      scopes.deliver(call);
    }
  }

  Optional<Selected> selected() {
    return selected;
  }

  Received received() {
    return received;
  }

  /**
   * What the stub that won answers.
   *
   * @throws StubFailed if a check does not hold, or something of the user's own throws
   */
  Response answered(Selected won) {
    try {
      won.rule().checks().forEach(check -> check.verify().accept(received));
      return Rendering.of(plain(won.answer()), received, won.count(), won.tallies());
    } catch (RuntimeException | Error thrown) {
      throw new StubFailed(won.rule(), thrown);
    }
  }

  private ResponseAnswer plain(Answer answer) {
    Answer computed = answer;
    while (computed instanceof ComputedAnswer function) {
      computed = function.function().apply(received);
    }
    if (!(computed instanceof ResponseAnswer plain)) {
      throw new IllegalStateException("the function of its computed answer returned null");
    }
    return plain.delivery().source().map(source -> plain.read(reader.read(source))).orElse(plain);
  }
}
