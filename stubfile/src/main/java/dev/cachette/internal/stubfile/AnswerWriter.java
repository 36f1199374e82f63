// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.answer.Answer;
import dev.cachette.answer.AnswerInternals;
import dev.cachette.answer.Fault;
import dev.cachette.answer.RealAnswer;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.answer.StreamAnswer;
import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import dev.cachette.internal.answer.Delivery;
import dev.cachette.internal.answer.Span;
import dev.cachette.internal.answer.Timing;
import dev.cachette.internal.body.AnswerForm;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.fields.Durations;
import dev.cachette.internal.json.StubNodes;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** Writes answers in the form of stub files; user code cannot be written. */
public final class AnswerWriter {

  private AnswerWriter() {}

  /** Writes an answer; empty if it is computed, waits for a gate, or is fed by the test. */
  public static Optional<JsonNode> write(Answer answer) {
    if (answer instanceof ResponseAnswer plain) {
      return response(plain).map(JsonNode.class::cast);
    }
    if (answer instanceof Fault fault) {
      return fault(fault);
    }
    if (answer instanceof StreamAnswer stream) {
      return stream(stream);
    }
    if (answer instanceof RealAnswer real && !AnswerInternals.isTransformed(real)) {
      ObjectNode form = StubNodes.member("realService", StubNodes.flag(true));
      if (AnswerInternals.isFailureAccepted(real)) {
        form.put("mayFail", true);
      }
      return timed(form, AnswerInternals.timing(real));
    }
    return Optional.empty();
  }

  /** Returns the name of a fault in stub files, and as a method. */
  public static String name(Fault fault) {
    return FaultNames.of(fault.kind());
  }

  /** Returns the fault of a kind without an answer. */
  public static Fault fault(Fault.Kind kind) {
    return FaultNames.alone(FaultNames.of(kind));
  }

  private static Optional<ObjectNode> response(ResponseAnswer answer) {
    ObjectNode form = JsonNodeFactory.instance.objectNode();
    Response response = answer.response();
    Delivery delivery = AnswerInternals.delivery(answer);
    if (response.status() != 200 || isEmpty(answer)) {
      form.put("status", response.status());
    }
    Headers headers = content(answer, form);
    headers(headers, "headers", form);
    headers(response.trailers(), "trailers", form);
    if (delivery.encoding() != Delivery.Encoding.NONE) {
      form.put("encoding", delivery.encoding().name().toLowerCase(Locale.ROOT));
    }
    if (delivery.ranges()) {
      form.put("ranges", true);
    }
    if (delivery.streamed()) {
      form.put("streamed", true);
    }
    template(answer, form);
    return timed(form, AnswerInternals.timing(answer)).map(ObjectNode.class::cast);
  }

  /** Sets {@code template} if the reader would guess wrong. */
  private static void template(ResponseAnswer answer, ObjectNode form) {
    boolean seen =
        !form.has("base64")
                && !form.has("file")
                && !form.has("classpath")
                && answer.response().text().contains("${")
            || answer.response().headers().stream().anyMatch(it -> it.value().contains("${"));
    if (seen != AnswerInternals.delivery(answer).template()) {
      form.put("template", AnswerInternals.delivery(answer).template());
    }
  }

  private static boolean isEmpty(ResponseAnswer answer) {
    return answer.response().body().isEmpty()
        && AnswerInternals.delivery(answer).source().isEmpty();
  }

  /** Writes the body; returns the headers that do not follow from its form. */
  private static Headers content(ResponseAnswer answer, ObjectNode form) {
    Headers headers = answer.response().headers();
    Optional<Delivery.Source> source = AnswerInternals.delivery(answer).source();
    if (source.isPresent()) {
      form.put(source.get().onClassPath() ? "classpath" : "file", source.get().name());
      return headers;
    }
    if (isEmpty(answer)) {
      return headers;
    }
    AnswerForm body =
        BodyFormats.answer(Content.of(headers.with("content-encoding"), answer.response().body()));
    form.set(body.key(), body.value());
    return without(headers, body.impliedType());
  }

  private static Headers without(Headers headers, String usualType) {
    return headers.first("content-type").filter(usualType::equals).isPresent()
        ? Headers.of(
            headers.stream().filter(it -> !it.name().equalsIgnoreCase("content-type")).toList())
        : headers;
  }

  private static void headers(Headers headers, String key, ObjectNode form) {
    if (headers.stream().findAny().isEmpty()) {
      return;
    }
    ObjectNode written = form.putObject(key);
    for (String name : headers.stream().map(Header::name).distinct().toList()) {
      List<String> values = headers.all(name);
      written.set(
          name, values.size() == 1 ? StubNodes.text(values.get(0)) : StubNodes.texts(values));
    }
  }

  private static Optional<JsonNode> fault(Fault fault) {
    ObjectNode form = StubNodes.member("fault", StubNodes.text(FaultNames.of(fault.kind())));
    if (fault.answer().isPresent()) {
      ResponseAnswer answer = fault.answer().get();
      if (fault.kind() == Fault.Kind.TRUNCATED
          && AnswerInternals.bytes(fault) != answer.response().body().size() / 2) {
        form.put("bytes", AnswerInternals.bytes(fault));
      }
      return response(answer).map(it -> form.setAll(it));
    }
    Body raw = AnswerInternals.raw(fault);
    if (!raw.isEmpty()) {
      form.put("base64", Base64.getEncoder().encodeToString(raw.bytes()));
    }
    if (form.size() == 1 && AnswerInternals.timing(fault).equals(Timing.AT_ONCE)) {
      return Optional.of(form.get("fault"));
    }
    return timed(form, AnswerInternals.timing(fault));
  }

  private static Optional<JsonNode> stream(StreamAnswer stream) {
    if (AnswerInternals.feed(stream).isPresent()) {
      return Optional.empty();
    }
    ObjectNode form = JsonNodeFactory.instance.objectNode();
    if (AnswerInternals.head(stream).status() != 200) {
      form.put("status", AnswerInternals.head(stream).status());
    }
    String type = AnswerInternals.head(stream).headers().first("content-type").orElse("");
    ObjectNode pieces = form.putObject("stream").put("mediaType", type);
    ArrayNode texts = pieces.putArray("pieces");
    AnswerInternals.pieces(stream).forEach(piece -> texts.add(piece.text(StandardCharsets.UTF_8)));
    headers(without(AnswerInternals.head(stream).headers(), type), "headers", form);
    return timed(form, AnswerInternals.timing(stream));
  }

  private static Optional<JsonNode> timed(ObjectNode form, Timing timing) {
    if (!timing.gates().isEmpty()) {
      return Optional.empty();
    }
    span("delay", timing.before(), form);
    span("pauseBeforeBody", timing.beforeBody(), form);
    if (timing.pieces() > 1) {
      form.put("pieces", timing.pieces());
    }
    span("pause", timing.between(), form);
    if (timing.bytesPerSecond() > 0) {
      form.put("rate", timing.bytesPerSecond());
    }
    return Optional.of(form);
  }

  private static void span(String key, Span span, ObjectNode form) {
    if (span.equals(Span.NONE)) {
      return;
    }
    if (span.least().equals(span.most())) {
      form.put(key, Durations.write(span.least()));
    } else {
      form.putArray(key).add(Durations.write(span.least())).add(Durations.write(span.most()));
    }
  }
}
