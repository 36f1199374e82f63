// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.convert;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.answer.Answer;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.stubfile.AnswerWriter;
import dev.cachette.internal.text.Digests;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** Converts recorded exchanges to stubs: one per request, with its answers in turn. */
public final class StubsOfExchanges {

  /** Headers that depend on time or connection, not on the service. */
  private static final Set<String> NOT_KEPT =
      Set.of("date", "content-encoding", "content-length", "transfer-encoding", "connection");

  private StubsOfExchanges() {}

  /**
   * The stub that an exchange becomes a part of, if it does.
   *
   * @param pattern the same for all exchanges of one stub; empty if it becomes none
   * @param remarks what is skipped
   */
  public record Kind(String pattern, List<String> remarks) {}

  /** Returns the kind of an exchange whose request is redacted. */
  public static Kind kind(Exchange exchange) {
    if (exchange.response().isEmpty() && exchange.fault().isEmpty()) {
      return new Kind("", List.of("skipped, because it has no answer: " + exchange));
    }
    if (exchange.response().filter(it -> !isFinal(it.status())).isPresent()) {
      return new Kind(
          "",
          List.of(
              "skipped, because a stub cannot answer with this status, such as an upgrade to"
                  + " WebSocket: "
                  + exchange));
    }
    ObjectNode pattern = pattern(exchange.request());
    Optional<String> left = BodyConditions.add(exchange.request(), pattern);
    return new Kind(
        Digests.of(pattern.toString()),
        left.map(why -> "not compared, because " + why + ": " + exchange).stream().toList());
  }

  /** Returns the stub of exchanges of one pattern. */
  public static ObjectNode stub(List<Exchange> exchanges) {
    ObjectNode stub = pattern(exchanges.get(0).request());
    BodyConditions.add(exchanges.get(0).request(), stub);
    List<JsonNode> inTurn = new ArrayList<>();
    for (Exchange exchange : exchanges) {
      JsonNode written = AnswerWriter.write(answer(exchange).orElseThrow()).orElseThrow();
      if (inTurn.isEmpty() || !inTurn.get(inTurn.size() - 1).equals(written)) {
        inTurn.add(written);
      }
    }
    if (inTurn.size() == 1) {
      stub.set("answer", inTurn.get(0));
    } else {
      stub.putArray("answers").addAll(inTurn);
    }
    return stub;
  }

  private static boolean isFinal(int status) {
    return status >= 200 && status <= 599;
  }

  /** Returns the outcome of an exchange, decoded from its content encoding. */
  static Optional<Answer> answer(Exchange exchange) {
    Optional<Response> response = exchange.response();
    if (response.isEmpty()) {
      return exchange.fault().map(AnswerWriter::fault);
    }
    Content content = Content.of(response.get().headers(), response.get().body());
    Headers kept =
        Headers.of(
            response.get().headers().stream()
                .filter(it -> !NOT_KEPT.contains(it.name().toLowerCase(Locale.ROOT)))
                .toList());
    return Optional.of(
        ResponseAnswer.of(
            new Response(
                response.get().status(),
                kept,
                Body.of(content.bytes()),
                response.get().trailers())));
  }

  /** Returns the request line, and conditions that it cannot express. */
  public static ObjectNode pattern(Request request) {
    ObjectNode pattern = JsonNodeFactory.instance.objectNode();
    String path = request.uri().path().replace("{", "%7B").replace("}", "%7D").replace("*", "%2A");
    pattern.put("request", request.method() + " " + request.uri().origin() + path);
    ObjectNode query = JsonNodeFactory.instance.objectNode();
    for (String name : request.uri().query().names()) {
      BodyConditions.setValue(query, name, request.uri().query().all(name));
    }
    if (!query.isEmpty()) {
      pattern.set("query", query);
    }
    return pattern;
  }
}
