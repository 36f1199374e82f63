// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

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
    return scopes
        .services()
        .of(call.request())
        .flatMap(
            service ->
                service
                    .resource(call.request())
                    .map(resource -> new ServiceAnswer(call, service, resource, scopes)));
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
