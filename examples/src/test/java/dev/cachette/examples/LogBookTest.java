// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.Cachette;
import dev.cachette.RestCollection;
import dev.cachette.Stub;
import dev.cachette.examples.harbour.LogBook;
import dev.cachette.junit.InterceptHttp;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Create, and then the list shows it: with two stubs, or with a collection. */
@InterceptHttp
class LogBookTest {

  private static final String ENTRIES = "https://log.example/v1/entries";

  private final LogBook log = new LogBook();

  @Test
  void showsWhatWasWrittenByStubs(Cachette net) {
    Stub create = net.stub("POST " + ENTRIES).answer(status(201));
    net.stub("GET " + ENTRIES).answer(json("[]"));
    net.stub("GET " + ENTRIES).answer(json("[{\"text\": \"Kittiwake in\"}]")).after(create);

    assertEquals(List.of(), log.read());
    log.write("Kittiwake in");
    assertEquals(List.of("Kittiwake in"), log.read());
  }

  @Test
  void showsWhatWasWrittenByACollection(Cachette net) {
    RestCollection entries = net.collection(ENTRIES).seed("[{\"id\": 1, \"text\": \"Skua out\"}]");

    log.write("Kittiwake in");

    assertEquals(List.of("Skua out", "Kittiwake in"), log.read());
    assertEquals(2, entries.items().get(1).path("id").asInt());
  }
}
