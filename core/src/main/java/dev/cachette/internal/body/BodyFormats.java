// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.body;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.scan.BodyType;
import dev.cachette.result.Difference;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;

/** All kinds of bodies. */
public final class BodyFormats {

  private static final BodyFormat TEXT = new TextFormat();
  private static final BodyFormat BINARY = new BinaryFormat();

  /** In the order in which they are tried. */
  private static final List<BodyFormat> ALL =
      List.of(
          new MultipartFormat(),
          new FormFormat(),
          new JsonFormat(),
          new JsonLinesFormat(),
          new XmlFormat(),
          new HtmlFormat(),
          TEXT,
          BINARY);

  private BodyFormats() {}

  /** Returns the format that the content type names; otherwise the one that the content is like. */
  public static BodyFormat of(Content content) {
    BodyType type = typeOf(content);
    boolean telling = !type.name().isEmpty() && !TEXT.isNamedBy(type);
    if (telling) {
      return named(type);
    }
    return ALL.stream().filter(format -> format.isLike(content)).findFirst().orElse(BINARY);
  }

  /** Returns the format that a content type names: text for an empty one. */
  public static BodyFormat named(Optional<String> contentType) {
    return contentType.map(BodyType::of).map(BodyFormats::named).orElse(TEXT);
  }

  private static BodyFormat named(BodyType type) {
    return ALL.stream().filter(format -> format.isNamedBy(type)).findFirst().orElse(BINARY);
  }

  /** Returns a text that is equal for equivalent contents. */
  public static String canonical(Content content, Ignored ignored) {
    return firstOf(content, format -> format.canonical(content, ignored));
  }

  /** Returns the differences between two contents; none if they are equivalent. */
  public static List<Difference> differences(Content expected, Content actual, Ignored ignored) {
    return firstOf(expected, format -> format.differences(expected, actual, ignored));
  }

  /** Returns the changes from one content to another. */
  public static List<BodyChange> changes(Content before, Content after, Ignored ignored) {
    return firstOf(before, format -> format.changes(before, after, ignored));
  }

  /** Returns the condition of a stub file for the same content. */
  public static JsonNode condition(Content content) {
    return firstOf(content, format -> format.condition(content));
  }

  /** Returns the body of an answer in a stub file. */
  public static AnswerForm answer(Content content) {
    return firstOf(content, format -> format.answer(content));
  }

  /** Applies a function to the format of the content, to text if that is malformed, or to bytes. */
  static <T> T firstOf(Content content, Function<BodyFormat, Optional<T>> function) {
    return function
        .apply(of(content))
        .or(() -> function.apply(TEXT))
        .or(() -> function.apply(BINARY))
        .orElseThrow();
  }

  private static BodyType typeOf(Content content) {
    return content.headers().first("content-type").map(BodyType::of).orElse(BodyType.NONE);
  }
}
