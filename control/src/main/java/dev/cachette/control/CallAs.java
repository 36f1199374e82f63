// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.calls.Call;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.Escapes;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** A call as text to go on with: a command, or a stub. Secrets are masked. */
final class CallAs {

  /** The client adds them itself. */
  private static final Set<String> ADDED = Set.of("host", "content-length", "connection");

  private CallAs() {}

  /**
   * Returns it.
   *
   * @throws IllegalArgumentException if there is no such form
   */
  static String of(String form, Call call) {
    return switch (form) {
      case "curl" -> curl(call);
      case "stub" -> stub(call);
      case "java" -> java(call);
      default ->
          throw new IllegalArgumentException(
              "as can be curl, stub, java or json, not " + form + ".");
    };
  }

  private static String curl(Call call) {
    List<String> words = new ArrayList<>();
    words.add("curl " + (call.method().equals("GET") ? "" : "-X " + call.method() + " "));
    words.set(0, words.get(0) + Escapes.shell(Masking.url(call.uri().toString())));
    call.headers()
        .forEach(
            it -> {
              if (!ADDED.contains(it.name().toLowerCase(Locale.ROOT))) {
                words.add(
                    "-H "
                        + Escapes.shell(it.name() + ": " + Masking.header(it.name(), it.value())));
              }
            });
    BodyText.of(call.headers(), call.body())
        .ifPresent(body -> words.add("--data-raw " + Escapes.shell(body)));
    return String.join(" \\\n  ", words) + "\n";
  }

  /** Values are JSON, which is YAML. */
  private static String stub(Call call) {
    StringBuilder yaml = new StringBuilder("stubs:\n  - request: ");
    yaml.append(literal(line(call))).append('\n');
    Optional<JsonNode> sent = json(call.headers(), call.body());
    sent.ifPresent(
        tree -> yaml.append("    body: { sameJson: ").append(Json.text(tree)).append(" }\n"));
    yaml.append("    answer:\n");
    if (!isAnswered(call)) {
      return yaml.append("      json: {}\n").toString();
    }
    yaml.append("      status: ").append(call.response().status()).append('\n');
    Headers headers = call.response().headers();
    Body body = call.response().body();
    Optional<JsonNode> json = json(headers, body);
    if (json.isPresent()) {
      yaml.append("      json: ").append(Json.text(json.get())).append('\n');
    } else {
      BodyText.of(headers, body)
          .ifPresent(text -> yaml.append("      text: ").append(literal(text)).append('\n'));
    }
    return yaml.toString();
  }

  private static String java(Call call) {
    StringBuilder code = new StringBuilder("net.stub(").append(literal(line(call))).append(")");
    json(call.headers(), call.body())
        .ifPresent(
            tree ->
                code.append("\n    .where(sameJson(")
                    .append(literal(Json.text(tree)))
                    .append("))"));
    if (!isAnswered(call)) {
      return code.append("\n    .answer(json(\"{}\"));\n").toString();
    }
    Headers headers = call.response().headers();
    Body body = call.response().body();
    Optional<JsonNode> json = json(headers, body);
    String answer =
        json.isPresent()
            ? "json(" + literal(Json.text(json.get())) + ")"
            : "text(" + literal(BodyText.of(headers, body).orElse("")) + ")";
    int status = call.response().status();
    return code.append("\n    .answer(")
        .append(answer)
        .append(status == 200 ? "" : ".status(" + status + ")")
        .append(");\n")
        .toString();
  }

  private static boolean isAnswered(Call call) {
    return CallJson.hasResponse(call) && !CallJson.isUnexpected(call);
  }

  private static String line(Call call) {
    return call.method() + " " + Masking.url(call.uri().toString());
  }

  /** A JSON string is one of Java and of YAML, too. */
  private static String literal(String text) {
    return Json.write("a text", text, Json.mapper());
  }

  private static Optional<JsonNode> json(Headers headers, Body body) {
    return BodyText.of(headers, body).flatMap(text -> BodyText.json(headers, text));
  }
}
