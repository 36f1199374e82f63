// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.Stub;
import dev.cachette.StubFiles;
import dev.cachette.examples.harbour.Booking;
import dev.cachette.examples.harbour.HarbourDesk;
import dev.cachette.examples.harbour.Vessel;
import dev.cachette.junit.InterceptHttp;
import dev.cachette.junit.Stubs;
import dev.cachette.stubfile.StubFileException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The snippets of docs/guide/stubs.md; GuideTest compares them with the page. */
@InterceptHttp
class StubsGuideTest {

  private static final Vessel KITTIWAKE = new Vessel("Kittiwake", 4.2);
  private static final LocalDate DAY = LocalDate.of(2031, 4, 2);

  @Test
  void plansAnArrival(Cachette net) {
    // snippet load
    StubFiles harbour = net.load("harbour");

    Booking booked = new HarbourDesk("harbour-token").planArrival(KITTIWAKE, DAY);

    assertEquals("B-12", booked.berth());
    harbour.stub("book a berth").calls().assertCount(2);
    // end
  }

  @Test
  void writesWhatIsInForce(Cachette net) {
    // snippet written
    Stub booking =
        net.stub("POST https://berths.example/v1/bookings")
            .json("$.vessel.draught", atMost(4.5))
            .answer(json("{\"berth\":\"B-12\"}").status(201));

    assertEquals(
        """
        stubs:
          - request: POST https://berths.example/v1/bookings
            json:
              $.vessel.draught:
                atMost: 4.5
            answer:
              status: 201
              json:
                berth: B-12
        """,
        booking.toStubFile());
    // end
    assertTrue(net.toStubFile().contains("B-12"));
  }

  @Test
  void saysWhatIsWrong(Cachette net, @TempDir Path folder) throws Exception {
    Path file = folder.resolve("harbour.stubs.yaml");
    Files.writeString(
        file,
        """
        stubs:
          - request: GET https://tides.example/v1/stations/{station}/tides
            query: { day: { patern: '\\d{4}' } }
            answer: { json: [], delay: soon }
        """);

    StubFileException wrong =
        assertThrows(StubFileException.class, () -> net.load(file.toString()));

    Guide.page("stubs").assertOutput("wrong", wrong.getMessage().replace(folder + "/", ""));
  }

  @Nested
  // snippet annotation
  @InterceptHttp
  @Stubs("harbour")
  class ArrivalTest {

    @Test
    void plansAnArrival() {
      assertEquals("B-12", new HarbourDesk("harbour-token").planArrival(KITTIWAKE, DAY).berth());
    }
  }
  // end
}
