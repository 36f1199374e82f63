// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.fields;

import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.StubNodes;
import org.jspecify.annotations.Nullable;

/**
 * A key of a mapping in a stub file.
 *
 * @param name the key
 * @param help what it says, in one line
 * @param shape the form of its value
 * @param reading reads the value; null if it is read with others of its mapping
 */
public record Key<R>(String name, String help, Shape shape, @Nullable R reading) {

  /** Returns a key that is read together with others of its mapping. */
  public static Key<Void> of(String name, String help, Shape shape) {
    return new Key<>(name, help, shape, null);
  }

  /** Returns the JSON Schema of its value. */
  public ObjectNode schema() {
    ObjectNode schema = StubNodes.member("description", StubNodes.text(help));
    schema.setAll(shape.schema());
    return schema;
  }
}
