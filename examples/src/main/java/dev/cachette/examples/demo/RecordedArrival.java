// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.demo;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.examples.harbour.Arrival;
import dev.cachette.examples.services.SimulatedHarbour;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;

/** A whole arrival, recorded from the simulated services, and replayed with them stopped. */
final class RecordedArrival {

  private static final Duration SLOW = Duration.ofMillis(120);
  private static final LocalDate DAY = LocalDate.of(2031, 4, 2);
  private static final CassetteSettings HOW =
      CassetteSettings.defaults()
          .recordingInCi()
          .redact("TIDES_KEY", SimulatedHarbour.TIDES_KEY)
          .redact("DESK_SECRET", SimulatedHarbour.DESK_SECRET);

  private final Account account;

  RecordedArrival(Account account) {
    this.account = account;
  }

  void run() throws IOException {
    account.heading("A whole arrival, recorded once and replayed");
    account.line("Five small servers simulate the real services; each takes 120 ms to answer.");
    Path folder = Files.createTempDirectory("cachette-demo");
    try {
      Settings settings = Settings.defaults().cassetteFolder(folder);
      Run recorded;
      int calls;
      try (SimulatedHarbour harbour = new SimulatedHarbour(SLOW)) {
        recorded = run(harbour.reachedBy(settings.name("the arrival, recorded")));
        calls = harbour.calls();
      }
      Run replayed = run(settings.name("the arrival, replayed"));
      tell(recorded, replayed, calls, Files.readString(folder.resolve("harbour/arrival.har")));
    } finally {
      delete(folder);
    }
  }

  /** The result of an arrival, and its duration. */
  private record Run(String planned, long millis, String recording) {}

  private static Run run(Settings settings) {
    try (Cachette net = Cachette.open(settings)) {
      String recording = net.cassette("harbour/arrival", HOW).mode().toString();
      long before = System.nanoTime();
      String planned =
          new Arrival(SimulatedHarbour.DESK_SECRET, SimulatedHarbour.TIDES_KEY)
              .plan("Kittiwake", DAY, 12);
      return new Run(planned, (System.nanoTime() - before) / 1_000_000, recording);
    }
  }

  private void tell(Run recorded, Run replayed, int calls, String file) {
    account.line(
        String.format(
            "%s, with the services:     %4d ms   %s",
            recorded.recording(), recorded.millis(), recorded.planned()));
    account.line(
        String.format(
            "%s, with them stopped:     %4d ms   %s",
            replayed.recording(), replayed.millis(), replayed.planned()));
    account.heading("Placeholders for secrets in the cassette (harbour/arrival.har)");
    file.lines()
        .map(String::strip)
        .filter(line -> line.contains("{{") && !line.contains("%7B"))
        .distinct()
        .limit(6)
        .forEach(account::line);
    account.space();
    account.claim(
        "the replay gives the same result as the services",
        () -> Account.equal(recorded.planned(), replayed.planned()));
    account.claim(
        "the services were called " + calls + " times, all while recording",
        () -> Account.equal(true, calls >= 6));
    account.claim(
        "no secret is in the file",
        () -> {
          for (String secret :
              List.of(SimulatedHarbour.TIDES_KEY, SimulatedHarbour.DESK_SECRET, "hbr-")) {
            Account.equal(false, file.contains(secret));
          }
        });
  }

  private static void delete(Path folder) throws IOException {
    try (Stream<Path> all = Files.walk(folder)) {
      for (Path each : all.sorted(Comparator.reverseOrder()).toList()) {
        Files.delete(each);
      }
    }
  }
}
