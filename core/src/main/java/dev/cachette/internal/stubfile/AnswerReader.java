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
import dev.cachette.internal.yaml.Node;
import java.nio.charset.Charset;
import java.util.Collection;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/** Reads answers: content, delivery and timing; or a fault. */
final class AnswerReader {

  private static final String FAULT = "fault";
  private static final String REAL_SERVICE = "realService";
  private static final String MAY_FAIL = "mayFail";
  private static final String REPEATED = "repeated";
  private static final String BYTES = "bytes";
  private static final String EXPRESSION = "${";

  /** Keys of a response besides its status and content. */
  private static final Set<String> FURTHER =
      Set.of(
          "headers",
          "cookies",
          "etag",
          "trailers",
          "charset",
          "encoding",
          "ranges",
          "template",
          "streamed",
          "replacing");

  /** Keys of an answer. */
  static final Set<String> KEYS = new HashSet<>();

  static {
    KEYS.addAll(ContentReader.KEYS);
    KEYS.addAll(TimingReader.KEYS);
    KEYS.addAll(FURTHER);
    KEYS.addAll(Set.of("status", FAULT, BYTES, REAL_SERVICE, MAY_FAIL, REPEATED));
  }

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
    Fields fields = Fields.of(node, "key of an answer", KEYS, problems);
    return node.isMapping()
        ? problems.attempt(node, () -> surroundings.ready(repeated(fields)))
        : Optional.empty();
  }

  private Answer repeated(Fields fields) {
    Optional<Integer> times = fields.positive(REPEATED);
    Answer once = answer(fields);
    return times.isPresent() ? once.repeated(times.get()) : once;
  }

  private Answer answer(Fields fields) {
    if (fields.isSet(REAL_SERVICE)) {
      Set<String> allowed = new HashSet<>(TimingReader.KEYS);
      allowed.add(MAY_FAIL);
      requireOnly(fields, REAL_SERVICE, allowed);
      surroundings.requireRealService();
      RealAnswer real = Answers.realService();
      return TimingReader.timed(fields.isSet(MAY_FAIL) ? real.mayFail() : real, fields);
    }
    Optional<String> fault = fields.text(FAULT);
    if (fault.isPresent()) {
      return fault(fault.get(), fields);
    }
    if (fields.has(BYTES)) {
      throw new IllegalArgumentException("\"bytes\" needs a fault next to it.");
    }
    if (fields.has(MAY_FAIL)) {
      throw new IllegalArgumentException("\"mayFail\" needs \"realService: true\" next to it.");
    }
    return ContentReader.isStream(fields)
        ? stream(fields)
        : TimingReader.timed(response(fields), fields);
  }

  private Answer stream(Fields fields) {
    Collection<String> allowed = new TreeSet<>(TimingReader.KEYS);
    allowed.addAll(Set.of("stream", "events", "status", "headers"));
    requireOnly(fields, "stream", allowed);
    StreamAnswer stream = contents.stream(fields);
    for (Node.Member header : fields.members("headers")) {
      stream = stream.header(header.name(), values(header));
    }
    Optional<Integer> status = fields.number("status");
    return TimingReader.timed(status.isPresent() ? stream.status(status.get()) : stream, fields);
  }

  private Answer fault(String name, Fields fields) {
    if (FaultNames.isWithin(name)) {
      ResponseAnswer whole = ready(TimingReader.timed(response(fields), fields));
      Optional<Integer> bytes = fields.number(BYTES);
      return name.equals(FaultNames.TRUNCATED) && bytes.isPresent()
          ? Faults.truncated(whole, bytes.get())
          : FaultNames.within(name, whole);
    }
    Collection<String> allowed = new TreeSet<>(TimingReader.KEYS);
    if (name.equals(FaultNames.HEADERS_TOO_LARGE)) {
      allowed.add(BYTES);
      requireOnly(fields, FAULT, allowed);
      Optional<Integer> bytes = fields.positive(BYTES);
      return TimingReader.timed(
          bytes.isPresent() ? Faults.headersTooLarge(bytes.get()) : Faults.headersTooLarge(),
          fields);
    }
    allowed.addAll(name.equals(FaultNames.NOT_HTTP) ? Set.of("text", "base64") : Set.of());
    Fault alone = FaultNames.alone(name);
    requireOnly(fields, FAULT, allowed);
    return TimingReader.timed(contents.raw(fields).map(Faults::notHttp).orElse(alone), fields);
  }

  private ResponseAnswer ready(ResponseAnswer answer) {
    return (ResponseAnswer) surroundings.ready(answer);
  }

  private ResponseAnswer response(Fields fields) {
    ResponseAnswer content = contents.response(fields);
    // Most answers have nothing else, so the other keys are not looked up.
    return fields.hasAny(FURTHER) || fields.node().mentions(EXPRESSION)
        ? completed(content, fields)
        : content;
  }

  private ResponseAnswer completed(ResponseAnswer content, Fields fields) {
    ResponseAnswer answer = content;
    for (Node.Member header : fields.members("headers")) {
      answer = answer.header(header.name(), values(header));
    }
    for (Node cookie : fields.list("cookies")) {
      answer = cookie(answer, cookie);
    }
    for (Node.Member trailer : fields.members("trailers")) {
      answer = answer.trailer(trailer.name(), trailer.value().text());
    }
    Optional<String> etag = fields.text("etag");
    if (etag.isPresent()) {
      answer = answer.etag(etag.get());
    }
    Optional<String> charset = fields.text("charset");
    if (charset.isPresent()) {
      answer = answer.charset(charset(charset.get()));
    }
    for (Node.Member part : fields.members("replacing")) {
      answer = ready(answer).replacing(part.name(), part.value().json());
    }
    return delivered(answer, fields);
  }

  private ResponseAnswer delivered(ResponseAnswer plain, Fields fields) {
    ResponseAnswer answer = plain;
    Optional<String> encoding = fields.text("encoding");
    if (encoding.isPresent()) {
      answer =
          switch (encoding.get()) {
            case "gzip" -> answer.gzip();
            case "deflate" -> answer.deflate();
            case "negotiated" -> answer.compressed();
            default ->
                throw new IllegalArgumentException(
                    String.format(
                        "unknown encoding \"%s\". Allowed: deflate, gzip, negotiated.",
                        encoding.get()));
          };
    }
    if (fields.isSet("ranges")) {
      answer = answer.ranges();
    }
    if (fields.flag("template").orElse(hasExpression(answer, fields))) {
      answer = answer.templated();
    }
    return fields.isSet("streamed") ? answer.streamed() : answer;
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

  private static Charset charset(String name) {
    try {
      return Charset.forName(name);
    } catch (IllegalArgumentException unknown) {
      throw new IllegalArgumentException("\"" + name + "\" is not a supported charset.", unknown);
    }
  }

  private ResponseAnswer cookie(ResponseAnswer answer, Node node) {
    Fields fields =
        Fields.of(node, "key of a cookie", Set.of("name", "value", "attributes"), problems);
    return answer.cookie(
        fields.text("name").orElse(""),
        fields.text("value").orElse(""),
        fields.texts("attributes").toArray(String[]::new));
  }

  private static String[] values(Node.Member header) {
    return Fields.elements(header.value()).stream().map(Node::text).toArray(String[]::new);
  }

  private static void requireOnly(Fields fields, String key, Collection<String> allowed) {
    for (Node.Member member : fields.members()) {
      if (!member.name().equals(key)
          && !member.name().equals(REPEATED)
          && !allowed.contains(member.name())) {
        throw new IllegalArgumentException(
            String.format(
                "\"%s\" is not allowed with \"%s\". Allowed: %s.",
                member.name(),
                key,
                allowed.isEmpty() ? "nothing" : String.join(", ", new TreeSet<>(allowed))));
      }
    }
  }
}
