// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.body;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.Reading;
import dev.cachette.internal.scan.BodyType;
import dev.cachette.result.Difference;
import java.util.List;
import java.util.Optional;

/**
 * One kind of body. Results are empty if content is malformed; it is then handled as text.
 *
 * <p>To add a kind: implement this, and add it to {@link BodyFormats}; if it has values that can be
 * secret, implement {@link dev.cachette.internal.scan.ValueFormat}, too.
 */
public interface BodyFormat {

  /** Returns true for bodies of this type. */
  boolean isNamedBy(BodyType type);

  /** Returns true for content that looks like it, for types that say nothing. */
  boolean isLike(Content content);

  /** Returns true if it is JSON, so that a value in an API description is the body itself. */
  default boolean isJson() {
    return false;
  }

  /** Returns true if it is a sequence of values, each of which a schema can be for. */
  default boolean isSequence() {
    return false;
  }

  /** Returns true if it can be shown as text. */
  default boolean isText() {
    return true;
  }

  /** Returns a text that is equal for equivalent contents, without the ignored places. */
  Optional<String> canonical(Content content, Ignored ignored);

  /** Returns the differences, for an explanation; none if the contents are equivalent. */
  Optional<List<Difference>> differences(Content expected, Content actual, Ignored ignored);

  /** Returns the changes from one recording to another. */
  Optional<List<BodyChange>> changes(Content before, Content after, Ignored ignored);

  /** Returns the content for people. */
  default String shown(Content content) {
    return content.text();
  }

  /** Returns a value escaped for a place in a template. */
  default String escaped(String value) {
    return value;
  }

  /** Returns the condition of a stub file for the same content. */
  Optional<JsonNode> condition(Content content);

  /** Returns the body of an answer in a stub file. */
  Optional<AnswerForm> answer(Content content);

  /**
   * Returns the content as a value that a schema can be applied to; empty if schemas do not apply.
   *
   * @param fields the types of fields, which are text in some formats
   */
  Optional<Reading<JsonNode>> value(Content content, FieldTypes fields);
}
