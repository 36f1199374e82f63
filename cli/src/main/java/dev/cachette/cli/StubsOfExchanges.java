package dev.cachette.cli;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
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
import dev.cachette.internal.stubfile.StubWriter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;

/** Converts recorded exchanges to stubs: one per request, with its answers in turn. */
final class StubsOfExchanges {

  /** Headers that depend on time or connection, not on the service. */
  private static final Set<String> NOT_KEPT =
      Set.of("date", "content-encoding", "content-length", "transfer-encoding", "connection");

  private StubsOfExchanges() {}

  /** Returns a stub file. */
  static ObjectNode of(List<Exchange> exchanges, Consumer<String> remark) {
    Map<JsonNode, List<JsonNode>> answers = new LinkedHashMap<>();
    for (Exchange exchange : exchanges) {
      Optional<Answer> answer = answer(exchange);
      if (answer.isEmpty()) {
        remark.accept("skipped, because it has no answer: " + exchange);
        continue;
      }
      if (exchange.response().filter(it -> !isFinal(it.status())).isPresent()) {
        remark.accept(
            "skipped, because a stub cannot answer with this status, such as an upgrade to"
                + " WebSocket: "
                + exchange);
        continue;
      }
      ObjectNode pattern = pattern(exchange.request());
      BodyConditions.add(exchange.request(), pattern)
          .ifPresent(why -> remark.accept("not compared, because " + why + ": " + exchange));
      List<JsonNode> inTurn = answers.computeIfAbsent(pattern, unused -> new ArrayList<>());
      JsonNode written = AnswerWriter.write(answer.get()).orElseThrow();
      if (inTurn.isEmpty() || !inTurn.get(inTurn.size() - 1).equals(written)) {
        inTurn.add(written);
      }
    }
    List<ObjectNode> stubs = new ArrayList<>();
    answers.forEach((pattern, inTurn) -> stubs.add(stub((ObjectNode) pattern, inTurn)));
    return StubWriter.file(stubs);
  }

  private static ObjectNode stub(ObjectNode pattern, List<JsonNode> inTurn) {
    ObjectNode stub = pattern.deepCopy();
    if (inTurn.size() == 1) {
      stub.set("answer", inTurn.get(0));
    } else {
      ArrayNode all = stub.putArray("answers");
      inTurn.forEach(all::add);
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
  static ObjectNode pattern(Request request) {
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
