// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import dev.cachette.internal.fields.Keys;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;

/**
 * The JSON Schema and the reference of stub files in the docs are made from the keys.
 *
 * <p>To write them: {@code mvn -pl core test -Dtest=StubFileReferenceTest
 * -Dreference.refresh=true}.
 */
class StubFileReferenceTest {

  private static final Path DOCS = Path.of("..", "docs");

  @Test
  void theSchemaIsThatOfTheKeys() throws IOException {
    ObjectMapper mapper = new ObjectMapper().enable(SerializationFeature.INDENT_OUTPUT);
    Object plain = mapper.readValue(StubFileSchema.document().toString(), Object.class);

    assertCurrent(
        DOCS.resolve("schema/cachette-stubs.schema.json"),
        mapper.writeValueAsString(plain).replace("\" : ", "\": ") + "\n");
  }

  @Test
  void theReferenceIsThatOfTheKeys() throws IOException {
    assertCurrent(DOCS.resolve("guide/stub-file-keys.md"), KeyReference.page());
  }

  @Test
  void theGuideNamesEach() throws IOException {
    String page = Files.readString(DOCS.resolve("guide/stubs.md"));

    for (Keys<?> keys :
        new Keys<?>[] {FileKeys.ALL, StubKeys.ALL, ValueKeys.ALL, BodyKeys.ALL, AnswerKeys.ALL}) {
      for (String name : keys.names()) {
        assertTrue(page.matches("(?s).*[`\\n ]" + name.replace("$", "\\$") + "\\b.*"), name);
      }
    }
  }

  private static void assertCurrent(Path file, String made) throws IOException {
    if (Boolean.getBoolean("reference.refresh")) {
      Files.writeString(file, made);
    }
    assertEquals(made, Files.exists(file) ? Files.readString(file) : "");
  }
}
