// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.json;

import com.fasterxml.jackson.databind.JsonNode;
import dev.harrel.jsonschema.FormatEvaluatorFactory;
import dev.harrel.jsonschema.Validator;
import dev.harrel.jsonschema.ValidatorFactory;
import dev.harrel.jsonschema.providers.JacksonNode;
import java.net.URI;

/**
 * The schema of schemas, 2020-12. Each validator would read it again, which takes a hundred times
 * longer than to check a schema by it.
 */
final class MetaSchema {

  private static final URI DIALECT = URI.create("https://json-schema.org/draft/2020-12/schema");

  private static final Validator VALIDATOR =
      new ValidatorFactory()
          .withJsonNodeFactory(new JacksonNode.Factory())
          // For regular expressions.
          .withEvaluatorFactory(new FormatEvaluatorFactory())
          .createValidator();

  private MetaSchema() {}

  /** Returns true if it is a valid schema of this dialect; another dialect is not looked at. */
  static boolean allows(JsonNode schema) {
    if (schema.findValue("$schema") != null) {
      return false;
    }
    synchronized (VALIDATOR) {
      return VALIDATOR.validate(DIALECT, schema).isValid();
    }
  }
}
