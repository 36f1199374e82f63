// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.convert;

import dev.cachette.answer.Answer;
import dev.cachette.answer.Fault;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Header;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.body.AnswerForm;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.stubfile.AnswerWriter;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/** Converts exchanges to Java code: one stub each, as in a test. */
public final class JavaOfExchanges {

  private JavaOfExchanges() {}

  /**
   * Returns the code.
   *
   * @throws IllegalArgumentException if no exchange has an answer
   */
  public static String of(List<Exchange> exchanges) {
    String stubs =
        exchanges.stream().flatMap(each -> stub(each).stream()).collect(Collectors.joining("\n"));
    if (stubs.isEmpty()) {
      throw Refusals.argument("no answered exchange to convert to Java.");
    }
    return stubs;
  }

  private static Optional<String> stub(Exchange exchange) {
    return StubsOfExchanges.answer(exchange)
        .map(
            answer ->
                "net.stub("
                    + line(exchange.request())
                    + ")"
                    + query(exchange.request())
                    + "\n    .answer("
                    + java(answer)
                    + ");\n");
  }

  private static String line(Request request) {
    return literal(StubsOfExchanges.pattern(request).get("request").textValue());
  }

  private static String query(Request request) {
    return request.uri().query().names().stream()
        .filter(name -> request.uri().query().all(name).size() == 1)
        .filter(name -> !request.uri().query().all(name).get(0).contains("{{"))
        .map(
            name ->
                String.format(
                    "\n    .query(%s, %s)",
                    literal(name), literal(request.uri().query().all(name).get(0))))
        .collect(Collectors.joining());
  }

  private static String java(Answer answer) {
    if (answer instanceof Fault fault) {
      return "Faults." + AnswerWriter.name(fault) + "()";
    }
    Response response = ((ResponseAnswer) answer).response();
    Content content = Content.of(response.headers(), response.body());
    AnswerForm body = BodyFormats.answer(content);
    StringBuilder java = new StringBuilder();
    String impliedType = body.impliedType();
    if (response.body().isEmpty()) {
      java.append("Answers.status(").append(response.status()).append(')');
      impliedType = "";
    } else if (BodyFormats.of(content).isJson() && content.json().isPresent()) {
      java.append("Answers.json(").append(block(content.json().get().toPrettyString())).append(')');
      impliedType = "application/json";
    } else if (body.key().equals("base64")) {
      java.append("Answers.bytes(java.util.Base64.getDecoder().decode(")
          .append(literal(body.value().textValue()))
          .append("))");
    } else {
      java.append("Answers.").append(body.key()).append('(');
      java.append(block(body.value().textValue())).append(')');
    }
    if (response.status() != 200 && !response.body().isEmpty()) {
      java.append("\n        .status(").append(response.status()).append(')');
    }
    for (String name : response.headers().stream().map(Header::name).distinct().toList()) {
      if (!name.equalsIgnoreCase("content-type")
          || !response.headers().all(name).equals(List.of(impliedType))) {
        String values =
            response.headers().all(name).stream()
                .map(JavaOfExchanges::literal)
                .collect(Collectors.joining(", "));
        java.append("\n        .header(")
            .append(literal(name))
            .append(", ")
            .append(values)
            .append(')');
      }
    }
    return java.toString();
  }

  /** Returns a text block for several lines, else a string literal. */
  private static String block(String text) {
    if (text.indexOf('\n') < 0 || text.indexOf('\r') >= 0) {
      return literal(text);
    }
    String lines =
        text.lines()
            .map(line -> line.replace("\\", "\\\\").replace("\"\"\"", "\\\"\"\""))
            .map(line -> line.endsWith(" ") ? line.substring(0, line.length() - 1) + "\\s" : line)
            .collect(Collectors.joining("\n        "));
    return "\n        \"\"\"\n        "
        + lines
        + (text.endsWith("\n") ? "\n        " : "")
        + "\"\"\"";
  }

  private static String literal(String text) {
    StringBuilder out = new StringBuilder("\"");
    for (char c : text.toCharArray()) {
      switch (c) {
        case '"' -> out.append("\\\"");
        case '\\' -> out.append("\\\\");
        case '\n' -> out.append("\\n");
        case '\r' -> out.append("\\r");
        case '\t' -> out.append("\\t");
        default -> out.append(c < ' ' ? String.format("\\u%04x", (int) c) : c);
      }
    }
    return out.append('"').toString();
  }
}
