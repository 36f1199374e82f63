// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.ObjectWriter;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.stubfile.StubWriter;

/** The format of a stub file. */
public enum StubFormat {
  /** YAML 1.2. */
  YAML {
    @Override
    String written(ObjectNode file) {
      return StubWriter.yaml(file);
    }
  },
  /** JSON (RFC 8259), laid out. */
  JSON {
    @Override
    String written(ObjectNode file) {
      return laidOut(file);
    }
  };

  /** Loading it takes a third of a second, so it waits until it is needed. */
  private static final class Writer {
    static final ObjectWriter LAID_OUT = new ObjectMapper().writerWithDefaultPrettyPrinter();
  }

  abstract String written(ObjectNode file);

  static String laidOut(JsonNode value) {
    try {
      return Writer.LAID_OUT.writeValueAsString(value);
    } catch (JsonProcessingException impossible) {
      throw new IllegalStateException(impossible);
    }
  }
}
