// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.answer.Answer;
import dev.cachette.answer.AnswerInternals;
import dev.cachette.answer.Answers;
import dev.cachette.answer.Fault;
import dev.cachette.answer.Faults;
import dev.cachette.answer.RealAnswer;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.answer.StreamAnswer;
import dev.cachette.internal.fields.Fields;
import dev.cachette.internal.fields.Key;
import dev.cachette.internal.fields.Problems;
import dev.cachette.internal.yaml.Node;
import java.nio.charset.Charset;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.UnaryOperator;

/** Reads answers: content, delivery and timing; or a fault. */
final class AnswerReader {

  private static final String EXPRESSION = "${";

  private final Problems problems;
  private final StubFileResolver surroundings;
  private final ContentReader contents;

  AnswerReader(Problems problems, StubFileResolver surroundings) {
    this.problems = problems;
    this.surroundings = surroundings;
    this.contents = new ContentReader(problems, surroundings);
  }

  /** Reads an answer; a number alone is a status, a string alone a fault. */
  Optional<Answer> read(Node node) {
    if (node.scalar() != null && node.json().canConvertToInt()) {
      return problems.attempt(node, () -> Answers.status(node.json().intValue()));
    }
    if (node.isText()) {
      return problems.attempt(node, () -> FaultNames.alone(node.text()));
    }
    Fields fields = Fields.of(node, "key of an answer", AnswerKeys.ALL, problems);
    return node.isMapping()
        ? problems.attempt(node, () -> surroundings.ready(repeated(fields)))
        : Optional.empty();
  }

  private Answer repeated(Fields fields) {
    Optional<Integer> times = fields.positive(AnswerKeys.REPEATED);
    Answer once = answer(fields);
    return times.isPresent() ? once.repeated(times.get()) : once;
  }

  private Answer answer(Fields fields) {
    if (fields.isSet(AnswerKeys.REAL_SERVICE)) {
      requireOnly(fields, AnswerKeys.REAL_SERVICE, Set.of(AnswerKeys.MAY_FAIL));
      surroundings.requireRealService();
      RealAnswer real = Answers.realService();
      return TimingReader.timed(fields.isSet(AnswerKeys.MAY_FAIL) ? real.mayFail() : real, fields);
    }
    Optional<String> fault = fields.text(AnswerKeys.FAULT);
    if (fault.isPresent()) {
      return fault(fault.get(), fields);
    }
    if (fields.has(AnswerKeys.BYTES)) {
      throw new IllegalArgumentException("\"bytes\" needs a fault next to it.");
    }
    if (fields.has(AnswerKeys.MAY_FAIL)) {
      throw new IllegalArgumentException("\"mayFail\" needs \"realService: true\" next to it.");
    }
    return ContentReader.isStream(fields)
        ? stream(fields)
        : TimingReader.timed(response(fields), fields);
  }

  private Answer stream(Fields fields) {
    Set<String> allowed = new HashSet<>(ContentKeys.STREAMED.names());
    allowed.addAll(Set.of(AnswerKeys.STATUS, AnswerKeys.HEADERS));
    requireOnly(fields, ContentKeys.STREAM, allowed);
    StreamAnswer stream = contents.stream(fields);
    for (Node.Member header : fields.members(AnswerKeys.HEADERS)) {
      stream = stream.header(header.name(), values(header));
    }
    Optional<Integer> status = fields.number(AnswerKeys.STATUS);
    return TimingReader.timed(status.isPresent() ? stream.status(status.get()) : stream, fields);
  }

  private Answer fault(String name, Fields fields) {
    if (FaultNames.isWithin(name)) {
      ResponseAnswer whole = ready(TimingReader.timed(response(fields), fields));
      Optional<Integer> bytes = fields.number(AnswerKeys.BYTES);
      return name.equals(FaultNames.TRUNCATED) && bytes.isPresent()
          ? Faults.truncated(whole, bytes.get())
          : FaultNames.within(name, whole);
    }
    if (name.equals(FaultNames.HEADERS_TOO_LARGE)) {
      requireOnly(fields, AnswerKeys.FAULT, Set.of(AnswerKeys.BYTES));
      Optional<Integer> bytes = fields.positive(AnswerKeys.BYTES);
      return TimingReader.timed(
          bytes.isPresent() ? Faults.headersTooLarge(bytes.get()) : Faults.headersTooLarge(),
          fields);
    }
    Fault alone = FaultNames.alone(name);
    requireOnly(
        fields,
        AnswerKeys.FAULT,
        name.equals(FaultNames.NOT_HTTP) ? Set.of("text", "base64") : Set.of());
    return TimingReader.timed(contents.raw(fields).map(Faults::notHttp).orElse(alone), fields);
  }

  private ResponseAnswer ready(ResponseAnswer answer) {
    return (ResponseAnswer) surroundings.ready(answer);
  }

  private ResponseAnswer response(Fields fields) {
    ResponseAnswer content = contents.response(fields);
    // Most answers have nothing else, so the other keys are not looked up.
    return fields.hasAny(AnswerKeys.FURTHER.names()) || fields.node().mentions(EXPRESSION)
        ? completed(content, fields)
        : content;
  }

  private ResponseAnswer completed(ResponseAnswer content, Fields fields) {
    ResponseAnswer answer = content;
    for (Key<AnswerKeys.Reading> key : AnswerKeys.FURTHER.all()) {
      answer = key.reading().of(this, answer, fields);
    }
    return answer;
  }

  /** Adds headers. */
  ResponseAnswer headers(ResponseAnswer plain, Fields fields) {
    ResponseAnswer answer = plain;
    for (Node.Member header : fields.members(AnswerKeys.HEADERS)) {
      answer = answer.header(header.name(), values(header));
    }
    return answer;
  }

  /** Adds cookies. */
  ResponseAnswer cookies(ResponseAnswer plain, Fields fields) {
    ResponseAnswer answer = plain;
    for (Node cookie : fields.list("cookies")) {
      answer = cookie(answer, cookie);
    }
    return answer;
  }

  /** Adds trailer fields. */
  ResponseAnswer trailers(ResponseAnswer plain, Fields fields) {
    ResponseAnswer answer = plain;
    for (Node.Member trailer : fields.members("trailers")) {
      answer = answer.trailer(trailer.name(), trailer.value().text());
    }
    return answer;
  }

  /** Replaces places of a JSON body. */
  ResponseAnswer replacing(ResponseAnswer plain, Fields fields) {
    ResponseAnswer answer = plain;
    for (Node.Member part : fields.members("replacing")) {
      answer = ready(answer).replacing(part.name(), part.value().json());
    }
    return answer;
  }

  /** Encodes the content. */
  static ResponseAnswer encoded(ResponseAnswer plain, String encoding) {
    UnaryOperator<ResponseAnswer> encoder = AnswerKeys.ENCODINGS.get(encoding);
    if (encoder == null) {
      throw new IllegalArgumentException(
          String.format(
              "unknown encoding \"%s\". Allowed: %s.",
              encoding, String.join(", ", AnswerKeys.ENCODINGS.keySet())));
    }
    return encoder.apply(plain);
  }

  /** Fills templates, if that is asked for or likely. */
  ResponseAnswer template(ResponseAnswer plain, Fields fields) {
    return fields.flag("template").orElseGet(() -> hasExpression(plain, fields))
        ? plain.templated()
        : plain;
  }

  /** Templates are filled, unless switched off; in files only if switched on. */
  private static boolean hasExpression(ResponseAnswer answer, Fields fields) {
    boolean written =
        AnswerInternals.delivery(answer).source().isEmpty()
            && !fields.has("base64")
            && !fields.has("recorded");
    return written && answer.response().text().contains(EXPRESSION)
        || answer.response().headers().stream().anyMatch(it -> it.value().contains(EXPRESSION));
  }

  /** Returns a charset by its name. */
  static Charset charset(String name) {
    try {
      return Charset.forName(name);
    } catch (IllegalArgumentException unknown) {
      throw new IllegalArgumentException("\"" + name + "\" is not a supported charset.", unknown);
    }
  }

  private ResponseAnswer cookie(ResponseAnswer answer, Node node) {
    Fields fields = Fields.of(node, "key of a cookie", AnswerKeys.COOKIE, problems);
    return answer.cookie(
        fields.text("name").orElse(""),
        fields.text("value").orElse(""),
        fields.texts("attributes").toArray(String[]::new));
  }

  private static String[] values(Node.Member header) {
    return Fields.elements(header.value()).stream().map(Node::text).toArray(String[]::new);
  }

  /** Refuses all but this key, the timing, and the keys that it may have besides. */
  private static void requireOnly(Fields fields, String key, Set<String> besides) {
    Set<String> allowed = new TreeSet<>(AnswerKeys.TIMING.names());
    allowed.addAll(besides);
    for (Node.Member member : fields.members()) {
      if (!member.name().equals(key)
          && !member.name().equals(AnswerKeys.REPEATED)
          && !allowed.contains(member.name())) {
        throw new IllegalArgumentException(
            String.format(
                "\"%s\" is not allowed with \"%s\". Allowed: %s.",
                member.name(), key, String.join(", ", allowed)));
      }
    }
  }
}
