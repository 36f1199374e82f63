package dev.cachette.internal.stub;

import dev.cachette.calls.StubReference;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.explain.DescriptionFailure;
import dev.cachette.internal.openapi.Described;
import dev.cachette.internal.openapi.MalformedDescription;
import dev.cachette.match.Check;
import java.util.List;
import java.util.function.Supplier;

/**
 * A call to a service that is described.
 *
 * @param service the service
 * @param request the request
 */
record DescribedCall(Described service, Request request) {

  private static final int PARTIAL_CONTENT = 206;

  /** What stands in the log for a call that an example answers. */
  StubReference reference() {
    StubReference operation = service.description().operation(request).orElseThrow();
    return new StubReference("the example of " + operation.name(), operation.place());
  }

  /** Where the call is described, in words. */
  private String described() {
    return service
        .description()
        .operation(request)
        .map(it -> it.name() + " in " + it.place())
        .orElseGet(() -> service.description().toString());
  }

  /**
   * Throws where the service would refuse the request.
   *
   * @param answering what would answer it
   * @throws Misfit if it would
   */
  void requireTaken(String answering) {
    List<Check> missed = checks(() -> service.description().refusals(request));
    if (!missed.isEmpty()) {
      throw new Misfit(
          DescriptionFailure.refused(
              described(), request, missed, answering, answering.startsWith("the stub")));
    }
  }

  /** What is said of the request where nothing answers it; empty text if the service takes it. */
  String remark() {
    List<Check> missed = checks(() -> service.description().refusals(request));
    return missed.isEmpty() ? "" : DescriptionFailure.refusedAnyway(described(), missed);
  }

  /**
   * Throws where the service would never answer like that. Troubles are no answers; of what is
   * streamed, only the head is looked at.
   *
   * @throws Misfit if it never would
   */
  Reply requirePossible(Reply reply, String answering) {
    if (reply.response().isEmpty() || reply.trouble().isPresent()) {
      return reply;
    }
    Response response = reply.response().get();
    boolean partial = response.status() == PARTIAL_CONTENT;
    boolean whole =
        !partial && !reply.isStream() && reply.file().isEmpty() && reply.feed().isEmpty();
    List<Check> missed = checks(() -> service.description().impossible(request, response, whole));
    if (!missed.isEmpty()) {
      throw new Misfit(
          DescriptionFailure.impossible(described(), request, response, missed, answering));
    }
    return reply;
  }

  /** What does not hold; a part of the description that cannot be used is a failure itself. */
  private List<Check> checks(Supplier<List<Check>> checking) {
    try {
      return checking.get();
    } catch (MalformedDescription unusable) {
      throw new Misfit(DescriptionFailure.unusable(request, unusable.getMessage()));
    }
  }

  /**
   * The reply that an example gives.
   *
   * @throws Misfit if there is none that would fit the description
   */
  Reply example() {
    try {
      Reply reply = Reply.of(service.description().example(request));
      return requirePossible(reply, "its example");
    } catch (MalformedDescription unusable) {
      throw new Misfit(DescriptionFailure.noExample(described(), request, unusable.getMessage()));
    }
  }

  /** A call that is not as the description says; the message is the whole explanation. */
  static final class Misfit extends RuntimeException {

    private static final long serialVersionUID = 1;

    Misfit(String text) {
      super(text, null, false, false);
    }
  }
}
