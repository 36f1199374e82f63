package dev.cachette.internal.stubfile;

import dev.cachette.answer.Answer;
import dev.cachette.answer.Answers;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.answer.StreamAnswer;
import dev.cachette.answer.Trouble;
import dev.cachette.answer.Troubles;
import dev.cachette.internal.yaml.Node;
import java.nio.charset.Charset;
import java.util.Collection;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/** Reads answers: a content, how it is delivered, and when; or a trouble. */
final class AnswerReader {

  private static final String TROUBLE = "trouble";
  private static final String REAL_SERVICE = "realService";
  private static final String BYTES = "bytes";
  private static final String EXPRESSION = "${";

  /** What can be said of a response beyond its status and content. */
  private static final Set<String> FURTHER =
      Set.of(
          "headers",
          "cookies",
          "etag",
          "trailers",
          "charset",
          "coding",
          "ranges",
          "template",
          "streamed",
          "replacing");

  /** What can stand in an answer. */
  static final Set<String> KEYS = new HashSet<>();

  static {
    KEYS.addAll(ContentReader.KEYS);
    KEYS.addAll(TimingReader.KEYS);
    KEYS.addAll(FURTHER);
    KEYS.addAll(Set.of("status", TROUBLE, BYTES, REAL_SERVICE));
  }

  private final Problems problems;
  private final Surroundings surroundings;
  private final ContentReader contents;

  AnswerReader(Problems problems, Surroundings surroundings) {
    this.problems = problems;
    this.surroundings = surroundings;
    this.contents = new ContentReader(problems, surroundings);
  }

  /** An answer; a number alone is a status, a text alone a trouble. */
  Optional<Answer> read(Node node) {
    if (node.scalar() != null && node.json().canConvertToInt()) {
      return problems.attempt(node, () -> Answers.status(node.json().intValue()));
    }
    if (node.isText()) {
      return problems.attempt(node, () -> TroubleNames.alone(node.text()));
    }
    Fields fields = Fields.of(node, "key of an answer", KEYS, problems);
    return node.isMapping()
        ? problems.attempt(node, () -> surroundings.ready(answer(fields)))
        : Optional.empty();
  }

  private Answer answer(Fields fields) {
    if (fields.isSet(REAL_SERVICE)) {
      requireOnly(fields, REAL_SERVICE, TimingReader.KEYS);
      return TimingReader.timed(Answers.realService(), fields);
    }
    Optional<String> trouble = fields.text(TROUBLE);
    if (trouble.isPresent()) {
      return trouble(trouble.get(), fields);
    }
    if (fields.has(BYTES)) {
      throw new IllegalArgumentException("\"bytes\" goes with a trouble.");
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

  private Answer trouble(String name, Fields fields) {
    if (TroubleNames.isWithin(name)) {
      ResponseAnswer whole = ready(TimingReader.timed(response(fields), fields));
      Optional<Integer> bytes = fields.number(BYTES);
      return name.equals(TroubleNames.CUT_SHORT) && bytes.isPresent()
          ? Troubles.cutShort(whole, bytes.get())
          : TroubleNames.within(name, whole);
    }
    Collection<String> allowed = new TreeSet<>(TimingReader.KEYS);
    if (name.equals(TroubleNames.HEADERS_TOO_LARGE)) {
      allowed.add(BYTES);
      requireOnly(fields, TROUBLE, allowed);
      Optional<Integer> bytes = fields.positive(BYTES);
      return TimingReader.timed(
          bytes.isPresent() ? Troubles.headersTooLarge(bytes.get()) : Troubles.headersTooLarge(),
          fields);
    }
    allowed.addAll(name.equals(TroubleNames.NO_HTTP) ? Set.of("text", "base64") : Set.of());
    Trouble alone = TroubleNames.alone(name);
    requireOnly(fields, TROUBLE, allowed);
    return TimingReader.timed(contents.raw(fields).map(Troubles::noHttp).orElse(alone), fields);
  }

  private ResponseAnswer ready(ResponseAnswer answer) {
    return (ResponseAnswer) surroundings.ready(answer);
  }

  private ResponseAnswer response(Fields fields) {
    ResponseAnswer content = contents.response(fields);
    // Most say no more than that, and are not asked for all that could be said.
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
    Optional<String> coding = fields.text("coding");
    if (coding.isPresent()) {
      answer =
          switch (coding.get()) {
            case "gzip" -> answer.gzip();
            case "deflate" -> answer.deflate();
            case "negotiated" -> answer.compressed();
            default ->
                throw new IllegalArgumentException(
                    String.format(
                        "\"%s\" is no coding. Allowed here: deflate, gzip, negotiated.",
                        coding.get()));
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

  /** Where something is to be filled, it is, unless that is switched off; in a file only if on. */
  private static boolean hasExpression(ResponseAnswer answer, Fields fields) {
    boolean written =
        answer.delivery().source().isEmpty() && !fields.has("base64") && !fields.has("recorded");
    return written && answer.response().text().contains(EXPRESSION)
        || answer.response().headers().stream().anyMatch(it -> it.value().contains(EXPRESSION));
  }

  private static Charset charset(String name) {
    try {
      return Charset.forName(name);
    } catch (IllegalArgumentException unknown) {
      throw new IllegalArgumentException(
          "\"" + name + "\" is no charset that Java knows.", unknown);
    }
  }

  private ResponseAnswer cookie(ResponseAnswer answer, Node node) {
    Fields fields =
        Fields.of(node, "part of a cookie", Set.of("name", "value", "attributes"), problems);
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
      if (!member.name().equals(key) && !allowed.contains(member.name())) {
        throw new IllegalArgumentException(
            String.format(
                "\"%s\" cannot stand beside \"%s\". Allowed beside it: %s.",
                member.name(),
                key,
                allowed.isEmpty() ? "nothing" : String.join(", ", new TreeSet<>(allowed))));
      }
    }
  }
}
