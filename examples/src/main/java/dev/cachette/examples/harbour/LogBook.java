// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.harbour;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.util.List;
import java.util.Map;

/** Writes to the harbour's log, and reads it. */
public final class LogBook {

  private static final String ENTRIES = "https://log.example/v1/entries";

  private final Http http = new Http();
  private final ObjectMapper mapper = new ObjectMapper();

  /**
   * Writes an entry.
   *
   * @throws HarbourException if it is rejected
   */
  public void write(String text) {
    try {
      http.post(ENTRIES, "application/json", mapper.writeValueAsString(Map.of("text", text)), 201);
    } catch (JsonProcessingException impossible) {
      throw new HarbourException("the entry cannot be written", impossible);
    }
  }

  /**
   * Returns the texts of all entries.
   *
   * @throws HarbourException if they cannot be read
   */
  public List<String> read() {
    try {
      List<Map<String, Object>> entries =
          mapper.readValue(http.get(ENTRIES, 200), new TypeReference<>() {});
      return entries.stream().map(entry -> entry.get("text").toString()).toList();
    } catch (JsonProcessingException malformed) {
      throw new HarbourException("the log cannot be parsed", malformed);
    }
  }
}
