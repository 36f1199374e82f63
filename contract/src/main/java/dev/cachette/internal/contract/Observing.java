// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.calls.Call;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.cassette.Redactor;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.stubfile.AnswerWriter;
import dev.cachette.internal.stubfile.StubWriter;
import dev.cachette.verification.GivenState;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.BiConsumer;

/** Makes an observation of a call that a stub answered. */
final class Observing {

  /** Headers of the connection, and those that each server sets as it likes. */
  private static final Set<String> NOT_NEEDED =
      Set.of(
          "connection",
          "content-encoding",
          "content-length",
          "content-type",
          "date",
          "keep-alive",
          "server",
          "transfer-encoding",
          "vary");

  private static final Response EMPTY =
      new Response(204, Headers.none(), Body.empty(), Headers.none());

  private Observing() {}

  /**
   * Returns what a test relied on by a call.
   *
   * @param without receives why a need has no place in this response
   * @throws IllegalArgumentException if the response does not meet the needs
   */
  static Observation of(
      Call call, StubSpec stub, String test, BiConsumer<String, Optional<String>> without) {
    Response plain = decoded(call.response());
    List<GivenState> given = States.read(stub.extensions().get(States.KEY));
    List<Exchange> exchanges = new ArrayList<>();
    exchanges.add(exchange(call.request(), plain));
    given.forEach(state -> exchanges.add(exchange(SecretStates.request(state), EMPTY)));
    List<Exchange> redacted = Redactor.redactedAsMasked(exchanges);
    Response example = redacted.get(0).response().orElse(plain);
    List<GivenState> states = new ArrayList<>();
    for (int at = 0; at < given.size(); at++) {
      states.add(SecretStates.read(given.get(at), redacted.get(at + 1).request()));
    }
    Clause clause =
        new Clause(
            stub.reference().name().replace(Masking.MASK, LooseConditions.ANY),
            states,
            LooseConditions.of(StubWriter.request(stub.pattern())),
            SampleRequest.of(redacted.get(0).request()),
            answer(example),
            ShapeSecrets.without(shape(plain, stub, without), plain, example),
            new TreeSet<>(Set.of(test)));
    return new Observation(clause, stub.reference().place());
  }

  private static Exchange exchange(Request request, Response response) {
    return Exchange.answered(Instant.EPOCH, Duration.ZERO, "HTTP/1.1", request, response);
  }

  /** Returns a response without content encoding, and without headers that are not needed. */
  private static Response decoded(Response response) {
    List<Header> kept =
        response.headers().stream()
            .filter(
                it ->
                    it.name().equalsIgnoreCase("content-type")
                        || !NOT_NEEDED.contains(it.name().toLowerCase(Locale.ROOT)))
            .toList();
    return new Response(
        response.status(),
        Headers.of(kept),
        PlainBodies.of(response.headers(), response.body()),
        response.trailers());
  }

  private static JsonNode answer(Response example) {
    return AnswerWriter.write(ResponseAnswer.of(example))
        .orElseGet(() -> StubNodes.object().put("status", example.status()));
  }

  private static ResponseShape shape(
      Response response, StubSpec stub, BiConsumer<String, Optional<String>> without) {
    Map<String, JsonNode> headers = new TreeMap<>();
    for (Header header : response.headers()) {
      String name = header.name().toLowerCase(Locale.ROOT);
      if (!NOT_NEEDED.contains(name)) {
        ObjectNode present = StubNodes.member("type", StubNodes.text("string"));
        headers.put(name, present);
      }
    }
    Optional<JsonNode> body = PlainBodies.json(response.headers(), response.body());
    return Needs.apply(
        stub.extensions().get(Needs.KEY),
        new ResponseShape(BareMediaType.bare(response), headers, body.map(TypeSchema::of)),
        body,
        without);
  }
}
