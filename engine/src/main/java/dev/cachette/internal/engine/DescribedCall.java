// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.explain.Answering;
import dev.cachette.internal.explain.DescriptionFailure;
import dev.cachette.internal.openapi.Described;
import dev.cachette.internal.openapi.MalformedDescription;
import dev.cachette.result.Check;
import dev.cachette.result.StubReference;
import java.util.List;
import java.util.function.Supplier;

/**
 * A call to a service with an API description.
 *
 * @param service the service
 * @param request the request
 */
record DescribedCall(Described service, Request request) {

  private static final int PARTIAL_CONTENT = 206;

  /** Returns the reference in the log for a call that an example answers. */
  StubReference reference() {
    StubReference operation = service.description().operation(request).orElseThrow();
    return new StubReference("the example of " + operation.name(), operation.place());
  }

  /** Returns the place in the API description, in words. */
  private String described() {
    return service
        .description()
        .operation(request)
        .map(it -> it.name() + " in " + it.place())
        .orElseGet(() -> service.description().toString());
  }

  /**
   * Checks the request.
   *
   * @param answering what would answer it
   * @throws Misfit if it violates the API description
   */
  void requireTaken(Answering answering) {
    List<Check> missed = checks(() -> service.description().refusals(request));
    if (!missed.isEmpty()) {
      throw new Misfit(
          DescriptionFailure.refused(described(), request, missed, answering),
          service.description().statusOfRefusal(request));
    }
  }

  /** Returns the violations of an unexpected call as text; empty if there are none. */
  String remark() {
    List<Check> missed = checks(() -> service.description().refusals(request));
    return missed.isEmpty() ? "" : DescriptionFailure.refusedAnyway(described(), request, missed);
  }

  /**
   * Checks the response. Faults are not responses; of a stream, only status and headers are
   * checked.
   *
   * @throws Misfit if it violates the API description
   */
  Reply requirePossible(Reply reply, Answering answering) {
    if (reply.response().isEmpty() || reply.fault().isPresent()) {
      return reply;
    }
    Response response = reply.response().get();
    boolean partial = response.status() == PARTIAL_CONTENT;
    boolean whole =
        !partial && !reply.isStream() && reply.file().isEmpty() && reply.live().isEmpty();
    List<Check> missed = checks(() -> service.description().impossible(request, response, whole));
    if (!missed.isEmpty()) {
      throw new Misfit(
          DescriptionFailure.impossible(described(), request, response, missed, answering));
    }
    return reply;
  }

  /**
   * Returns the violations; a part of the API description that cannot be used is an error itself.
   */
  private List<Check> checks(Supplier<List<Check>> checking) {
    try {
      return checking.get();
    } catch (MalformedDescription unusable) {
      throw new Misfit(DescriptionFailure.unusable(request, unusable.getMessage()));
    }
  }

  /**
   * Returns the reply from an example.
   *
   * @throws Misfit if there is no valid one
   */
  Reply example() {
    try {
      Reply reply = Reply.of(service.description().example(request));
      return requirePossible(reply, Answering.ITS_EXAMPLE);
    } catch (MalformedDescription unusable) {
      throw new Misfit(DescriptionFailure.noExample(described(), request, unusable.getMessage()));
    }
  }

  /** Thrown if a call violates the API description; the message is the whole explanation. */
  static final class Misfit extends RuntimeException {

    private static final long serialVersionUID = 1;

    private final int status;

    Misfit(String text) {
      this(text, 500);
    }

    /** Creates an exception for which the caller gets this status. */
    Misfit(String text, int status) {
      super(text, null, false, false);
      this.status = status;
    }

    /** Returns the response: problem details (RFC 9457) if the caller has made the mistake. */
    Response response() {
      return status >= 500
          ? Responder.explained(status, getMessage())
          : ProblemDetails.of(status, getMessage());
    }
  }
}
