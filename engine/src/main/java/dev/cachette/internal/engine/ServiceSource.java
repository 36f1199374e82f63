// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.http.Request;
import dev.cachette.result.StubReference;
import java.util.Optional;

/** The services that other modules stand in for. */
final class ServiceSource implements AnswerSource {

  private final Scopes scopes;

  ServiceSource(Scopes scopes) {
    this.scopes = scopes;
  }

  @Override
  public Optional<ChosenAnswer> choose(ArrivedCall call) {
    boolean isRecorded = isOfCase(call.request());
    for (ServedService service : scopes.services().of(call.request())) {
      if (isRecorded && !service.replacesRecorded(call.request())) {
        continue;
      }
      Optional<StubReference> resource = service.resource(call.request());
      if (resource.isPresent()) {
        return Optional.of(new ServiceAnswer(call, service, resource.get(), scopes));
      }
    }
    return Optional.empty();
  }

  /** Returns true if a case that is replayed has an exchange with the service of a request. */
  private boolean isOfCase(Request request) {
    return scopes.cassettesFor(request).stream()
        .anyMatch(it -> it.isChosen() && it.answers(request));
  }

  private record ServiceAnswer(
      ArrivedCall call, ServedService service, StubReference resource, Scopes scopes)
      implements ChosenAnswer {

    @Override
    public Optional<StubReference> reference() {
      return Optional.of(resource);
    }

    /** It may make keys. */
    @Override
    public boolean takesTime() {
      return true;
    }

    @Override
    public Reply reply(PendingCall pending) {
      return Reply.of(
          service.respond(
              new ServedService.ServedCall(
                  call.request(),
                  call.arrival().carrier().clientCertificate(),
                  scopes.now(),
                  pending::noteFailure)));
    }
  }
}
