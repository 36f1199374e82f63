// SPDX-License-Identifier: Apache-2.0
package dev.cachette.report;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.ObjectReader;
import java.io.BufferedReader;
import java.io.IOException;
import java.nio.charset.MalformedInputException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/** Reads the files of JVMs. */
final class RunReader {

  /** Of the calls after so many characters, headers and bodies are left out. */
  private static final long MOST_CHARACTERS = 100_000_000;

  private final ObjectReader reader = new ObjectMapper().reader();
  private long characters;

  /**
   * Reads one file.
   *
   * @throws MalformedPart if it is not of this program, or of another version of it
   */
  JvmEvents read(Path part) throws IOException {
    JvmEvents events = new JvmEvents();
    int number = 0;
    boolean isCut = false;
    try (BufferedReader lines = Files.newBufferedReader(part)) {
      for (String line = lines.readLine(); line != null; line = lines.readLine()) {
        number++;
        if (isCut) {
          throw new MalformedPart(part, number - 1, "it is not a JSON object");
        }
        try {
          add(events, line);
        } catch (JsonProcessingException | IllegalArgumentException incomplete) {
          // The last line of a JVM that was killed while it wrote.
          isCut = true;
        }
      }
    } catch (MalformedInputException binary) {
      throw new MalformedPart(part, number + 1, "it is not text");
    }
    if (number > 0) {
      requireKnown(part, events.jvm());
    }
    return events;
  }

  private void add(JvmEvents events, String line) throws JsonProcessingException {
    int end = line.indexOf('\t');
    JsonNode event = reader.readTree(end < 0 ? line : line.substring(0, end));
    boolean isLost = event.path("event").asText().equals("lost");
    if (!isLost && !event.path("at").isIntegralNumber()) {
      throw new IllegalArgumentException(line);
    }
    characters += line.length();
    boolean isWanted = end >= 0 && characters <= MOST_CHARACTERS;
    events.add(event, isWanted ? List.of(line.substring(end + 1).split("\t")) : List.of());
  }

  private static void requireKnown(Path part, JsonNode first) {
    int format = first.path("format").asInt();
    if (first.isMissingNode()) {
      throw new MalformedPart(part, 1, "a run report does not begin like that");
    }
    if (format != Events.FORMAT) {
      throw new MalformedPart(
          part, 1, "it has format " + format + ", and this version reads " + Events.FORMAT);
    }
  }
}
