// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import com.fasterxml.jackson.core.JsonPointer;
import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.calls.Call;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.internal.fields.Durations;
import dev.cachette.internal.secret.Masking;
import dev.cachette.result.StubReference;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/**
 * Selects calls by one line of text: terms with spaces between them, all of which must hold.
 *
 * <p>A term is a text that is in the URL, the stub, the test or the outcome, or a field with a
 * value: {@code method:POST}, {@code status:5xx}, {@code header:x-desk=7}, {@code is:unexpected}. A
 * minus sign before a term excludes. A value may be in quotes; {@code *} stands for any text in it.
 * Values are compared as they are shown: with secrets masked.
 */
public final class CallFilter {

  /** The time from which a call is slow. */
  private static final Duration SLOW = Duration.ofMillis(500);

  private static final int LONGEST = 1_000;

  /** Larger bodies are not searched. */
  private static final int LARGEST_BODY = 1 << 20;

  private static final Pattern TERM = Pattern.compile("(-?)(?:([a-z]+):)?((?:\"[^\"]*\"?|\\S)+)");
  private static final Pattern STATUS = Pattern.compile("([1-9][0-9]{2})(?:-([1-9][0-9]{2}))?");
  private static final Pattern STATUS_CLASS = Pattern.compile("([1-9])xx");

  /** A field: what it is for, an example, and how its value is read. */
  private record Field(String help, String example, Function<String, Predicate<Call>> reading) {}

  private static final Map<String, Predicate<Call>> KINDS = kinds();

  private static final Map<String, Field> FIELDS = fields();

  private final String text;
  private final List<Predicate<Call>> terms;

  private CallFilter(String text, List<Predicate<Call>> terms) {
    this.text = text;
    this.terms = terms;
  }

  /**
   * Returns the filter that a text describes.
   *
   * @throws IllegalArgumentException if it has a term that cannot be; the message names its column
   */
  public static CallFilter of(String text) {
    if (text.length() > LONGEST) {
      throw new IllegalArgumentException(
          "column " + LONGEST + ": a filter has at most " + LONGEST + " characters.");
    }
    List<Predicate<Call>> terms = new ArrayList<>();
    Matcher term = TERM.matcher(text);
    while (term.find()) {
      Predicate<Call> read = read(term);
      terms.add(term.group(1).isEmpty() ? read : read.negate());
    }
    return new CallFilter(text, terms);
  }

  /** Returns the fields, with what they are for, and an example of each. */
  static List<Map<String, String>> described() {
    List<Map<String, String>> all = new ArrayList<>();
    FIELDS.forEach(
        (name, field) -> {
          Map<String, String> one = new LinkedHashMap<>();
          one.put("field", name);
          one.put("for", field.help);
          one.put("example", name + ":" + field.example);
          all.add(one);
        });
    return all;
  }

  /** Returns true if a call is selected. */
  public boolean selects(Call call) {
    return terms.stream().allMatch(term -> term.test(call));
  }

  @Override
  public String toString() {
    return text;
  }

  private static Predicate<Call> read(Matcher term) {
    String name = term.group(2);
    String value = term.group(3).replace("\"", "");
    if (name == null) {
      return anywhere(value);
    }
    Field field = FIELDS.get(name);
    if (field == null && isAddress(name, value)) {
      return anywhere(name + ":" + value);
    }
    if (field == null) {
      throw wrong(
          term.start(2),
          "there is no field " + name + ". Fields: " + String.join(", ", FIELDS.keySet()) + ".");
    }
    try {
      return field.reading.apply(value);
    } catch (IllegalArgumentException other) {
      throw wrong(
          term.start(3),
          name
              + ":"
              + value
              + " cannot be read. Fix: write it as "
              + name
              + ":"
              + field.example
              + ".");
    }
  }

  private static boolean isAddress(String name, String value) {
    return value.startsWith("//") && name.startsWith("http");
  }

  private static IllegalArgumentException wrong(int at, String what) {
    return new IllegalArgumentException("column " + (at + 1) + ": " + what);
  }

  private static Map<String, Field> fields() {
    Map<String, Field> all = new LinkedHashMap<>();
    all.put("method", new Field("the method", "POST", it -> is(it, call -> texts(call.method()))));
    all.put("status", new Field("a status, or a range", "400-499", CallFilter::status));
    all.put(
        "host",
        new Field(
            "the host",
            "*.tides.example",
            it -> is(it, call -> texts(call.request().uri().host()))));
    all.put(
        "path",
        new Field(
            "a part of the path",
            "/v1/berths",
            it -> has(it, call -> call.request().uri().path())));
    all.put(
        "stub", new Field("a part of the name of the stub", "\"book a berth\"", CallFilter::stub));
    all.put(
        "test",
        new Field(
            "a part of the name of the test that made it",
            "BerthDeskTest",
            it -> has(it, call -> call.madeBy().test().orElse(""))));
    all.put(
        "header",
        new Field(
            "a header of the request or response, with its value", "x-desk=7", CallFilter::header));
    all.put(
        "json",
        new Field(
            "a value in a JSON body, by JSON Pointer", "/berth/name=Quay*", CallFilter::json));
    all.put("is", new Field(String.join(", ", KINDS.keySet()), "unexpected", CallFilter::kind));
    all.put(
        "slower",
        new Field(
            "a time that the answer took at least", "200ms", it -> slower(Durations.parse(it))));
    return all;
  }

  private static Map<String, Predicate<Call>> kinds() {
    Map<String, Predicate<Call>> all = new LinkedHashMap<>();
    all.put("unexpected", CallJson::isUnexpected);
    all.put("failed", call -> call.failure().isPresent() || CallJson.isUnexpected(call));
    all.put("fault", call -> call.fault().isPresent());
    all.put("slow", slower(SLOW));
    all.put("open", call -> call.duration().isEmpty());
    return all;
  }

  private static Predicate<Call> kind(String value) {
    Predicate<Call> kind = KINDS.get(value);
    if (kind == null) {
      throw new IllegalArgumentException(value);
    }
    return kind;
  }

  private static Predicate<Call> slower(Duration least) {
    return call -> call.duration().filter(took -> took.compareTo(least) >= 0).isPresent();
  }

  private static Predicate<Call> status(String value) {
    Matcher range = STATUS.matcher(value);
    Matcher ofClass = STATUS_CLASS.matcher(value);
    int from;
    int to;
    if (ofClass.matches()) {
      from = Integer.parseInt(ofClass.group(1)) * 100;
      to = from + 99;
    } else if (range.matches()) {
      from = Integer.parseInt(range.group(1));
      to = range.group(2) == null ? from : Integer.parseInt(range.group(2));
    } else {
      throw new IllegalArgumentException(value);
    }
    return call ->
        CallJson.hasResponse(call)
            && call.response().status() >= from
            && call.response().status() <= to;
  }

  private static Predicate<Call> stub(String value) {
    return has(value, call -> call.stub().map(StubReference::toString).orElse(""));
  }

  private static Predicate<Call> header(String value) {
    int equals = value.indexOf('=');
    String name = equals < 0 ? value : value.substring(0, equals);
    if (name.isEmpty()) {
      throw new IllegalArgumentException(value);
    }
    Predicate<Call> present = call -> headers(call, name).findAny().isPresent();
    return equals < 0 ? present : is(value.substring(equals + 1), call -> headers(call, name));
  }

  private static Stream<String> headers(Call call, String name) {
    Stream<String> sent = values(call.headers(), name);
    return CallJson.hasResponse(call)
        ? Stream.concat(sent, values(call.response().headers(), name))
        : sent;
  }

  private static Stream<String> values(Headers headers, String name) {
    return headers.all(name).stream().map(value -> Masking.header(name, value));
  }

  private static Predicate<Call> json(String value) {
    int equals = value.indexOf('=');
    JsonPointer pointer = JsonPointer.compile(equals < 0 ? value : value.substring(0, equals));
    if (equals < 0) {
      return call -> json(call, pointer).findAny().isPresent();
    }
    return is(value.substring(equals + 1), call -> json(call, pointer));
  }

  private static Stream<String> json(Call call, JsonPointer pointer) {
    Stream<JsonNode> sent = tree(call.headers(), call.body()).stream();
    Stream<JsonNode> answered =
        CallJson.hasResponse(call)
            ? tree(call.response().headers(), call.response().body()).stream()
            : Stream.of();
    return Stream.concat(sent, answered)
        .map(tree -> tree.at(pointer))
        .filter(found -> !found.isMissingNode())
        .map(found -> found.isValueNode() ? found.asText() : found.toString());
  }

  private static Optional<JsonNode> tree(Headers headers, Body body) {
    return body.isEmpty() || body.size() > LARGEST_BODY
        ? Optional.empty()
        : BodyText.json(
            headers, BodyText.masked(headers, new String(body.bytes(), headers.charset())));
  }

  private static Predicate<Call> anywhere(String value) {
    Wildcards wanted = Wildcards.of(value);
    return call ->
        Stream.of(
                call.method() + " " + Masking.url(call.uri().toString()),
                call.outcome(),
                call.stub().map(StubReference::toString).orElse(""),
                call.madeBy().test().orElse(""))
            .anyMatch(wanted::isIn);
  }

  private static Stream<String> texts(String text) {
    return Stream.of(text);
  }

  /** One of the texts is the value. */
  private static Predicate<Call> is(String value, Function<Call, Stream<String>> texts) {
    Wildcards wanted = Wildcards.of(value);
    return call -> texts.apply(call).anyMatch(wanted::isWhole);
  }

  /** The value is a part of the text. */
  private static Predicate<Call> has(String value, Function<Call, String> text) {
    Wildcards wanted = Wildcards.of(value);
    return call -> wanted.isIn(text.apply(call));
  }
}
