package dev.cachette.report;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.BufferedReader;
import java.io.IOException;
import java.nio.charset.MalformedInputException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/** Reads the files of JVMs. */
final class RunReader {

  private static final ObjectMapper MAPPER = new ObjectMapper();

  /** Of the calls after so many characters, headers and bodies are left out. */
  private static final long MOST_CHARACTERS = 100_000_000;

  private static final Set<String> LARGE = Set.of("request", "response");

  private long characters;

  /**
   * Reads one file.
   *
   * @throws MalformedPart if it is not of this program, or of another version of it
   */
  JvmEvents read(Path part) throws IOException {
    List<JsonNode> events = new ArrayList<>();
    int number = 0;
    boolean isCut = false;
    try (BufferedReader lines = Files.newBufferedReader(part)) {
      for (String line = lines.readLine(); line != null; line = lines.readLine()) {
        number++;
        if (isCut) {
          throw new MalformedPart(part, number - 1, "it is not a JSON object");
        }
        try {
          events.add(event(line));
        } catch (JsonProcessingException | IllegalArgumentException incomplete) {
          // The last line of a JVM that was killed while it wrote.
          isCut = true;
        }
      }
    } catch (MalformedInputException binary) {
      throw new MalformedPart(part, number + 1, "it is not text");
    }
    if (events.isEmpty() && isCut) {
      throw new MalformedPart(part, 1, "it is not a JSON object");
    }
    if (!events.isEmpty()) {
      requireKnown(part, events.get(0));
    }
    return JvmEvents.of(events);
  }

  private JsonNode event(String line) throws JsonProcessingException {
    JsonNode event = MAPPER.readTree(line);
    if (!event.isObject()) {
      throw new IllegalArgumentException(line);
    }
    characters += line.length();
    if (characters > MOST_CHARACTERS && event.path("event").asText().equals("call")) {
      ((ObjectNode) event).remove(LARGE);
    }
    return event;
  }

  private static void requireKnown(Path part, JsonNode first) {
    int format = first.path("format").asInt();
    if (!first.path("event").asText().equals("jvm")) {
      throw new MalformedPart(part, 1, "a run report does not begin like that");
    }
    if (format != Events.FORMAT) {
      throw new MalformedPart(
          part, 1, "it has format " + format + ", and this version reads " + Events.FORMAT);
    }
  }
}
