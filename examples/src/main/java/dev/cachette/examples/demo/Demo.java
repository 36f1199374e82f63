// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.demo;

import static dev.cachette.Factories.*;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.Stub;
import dev.cachette.calls.Call;
import dev.cachette.examples.harbour.Booking;
import dev.cachette.examples.harbour.HarbourDesk;
import dev.cachette.examples.harbour.HarbourException;
import dev.cachette.examples.harbour.Tides;
import dev.cachette.examples.harbour.Vessel;
import java.io.IOException;
import java.io.PrintWriter;
import java.net.HttpURLConnection;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;

/** The arrival of the Kittiwake: shown by {@code ./cachette demo}, without a network. */
public final class Demo {

  private static final String TIDES = "GET https://tides.example/v1/stations/{station}/tides";
  private static final String BOOKINGS = "POST https://berths.example/v1/bookings";
  private static final String MISTAKE =
      "https://tides.example/v1/stations/Marrow%20Bay/tides/?day=2031-04-02";
  private static final LocalDate DAY = LocalDate.of(2031, 4, 2);

  private final Account account;

  private Demo(Account account) {
    this.account = account;
  }

  /**
   * Runs the demo.
   *
   * @return true if every claim holds
   */
  public static boolean tell(PrintWriter out, boolean inColour) throws IOException {
    Account account = new Account(out, inColour);
    new Demo(account).run();
    return account.conclude();
  }

  private void run() throws IOException {
    account.heading("Marrow Bay, 2 April 2031: the arrival of the Kittiwake");
    account.line(
        "The harbour desk calls services that do not exist. Cachette is open in this JVM.");
    Cachette net = Cachette.open(Settings.defaults().name("the arrival of the Kittiwake"));
    try {
      arrival(net);
      fault(net);
      unexpectedCall(net);
    } finally {
      account.claim(
          "and the test fails at its end, whatever the code does with the 501",
          () -> mustFail(net));
    }
    new RecordedArrival(account).run();
  }

  private void arrival(Cachette net) {
    Stub tides =
        net.stub(TIDES)
            .named("tides of the day")
            .answer(json(new Tides("Marrow Bay", List.of("04:10", "16:35"))));
    Stub berth =
        net.stub(BOOKINGS)
            .named("book a berth")
            .answer(
                status(503).header("retry-after", "1"),
                json(new Booking("B-12", "04:10")).status(201));
    account.heading("The stubs");
    account.line(TIDES);
    account.line("    200 with two high waters");
    account.line(BOOKINGS);
    account.line("    503 at first, then 201 with berth B-12");

    Booking booked =
        new HarbourDesk("harbour-token").planArrival(new Vessel("Kittiwake", 4.2), DAY);

    account.heading("What the desk did");
    account.line("It read the tides with the JDK's HTTP client, and booked with OkHttp:");
    account.line("berth " + booked.berth() + ", from " + booked.from() + ".");
    account.heading("The calls");
    net.calls().toString().lines().forEach(line -> account.line(line.strip()));
    account.heading("Assertions");
    account.claim("the berth is B-12", () -> Account.equal("B-12", booked.berth()));
    account.claim(
        "the tides were requested once, for Marrow Bay and the day",
        () -> {
          Call call = tides.calls().only();
          Account.equal("Marrow Bay", call.variable("station"));
          Account.equal(Optional.of("2031-04-02"), call.query("day"));
        });
    account.claim(
        "the berth was requested twice, for the first high water",
        () ->
            Account.equal(
                "04:10", berth.calls().assertCount(2).last().json().at("/from").asText()));
    account.claim("there were no other calls", () -> net.calls().assertCount(3));
  }

  private void fault(Cachette net) {
    account.heading("A fault");
    try (Cachette.Scope test = net.scope()) {
      Stub reset = net.stub(TIDES).answer(connectionReset());
      account.line("The connection to the tides is reset instead of an answer. The desk reports:");
      account.claim(
          "the desk fails, and names the service",
          () -> {
            HarbourException failure =
                Account.thrown(
                    HarbourException.class,
                    () ->
                        new HarbourDesk("harbour-token")
                            .planArrival(new Vessel("Kittiwake", 4.2), DAY));
            account.line(failure.getMessage());
          });
      account.claim("there was one call", () -> reset.calls().assertCount(1));
    }
  }

  private void unexpectedCall(Cachette net) throws IOException {
    account.heading("An unexpected call");
    account.line("GET " + MISTAKE);
    HttpURLConnection connection = (HttpURLConnection) URI.create(MISTAKE).toURL().openConnection();
    int status = connection.getResponseCode();
    String body = new String(connection.getErrorStream().readAllBytes(), StandardCharsets.UTF_8);
    account.line("is answered with " + status + " and the reason:");
    account.space();
    account.quote(body);
    account.space();
    account.claim("the caller gets 501", () -> Account.equal(501, status));
    account.claim(
        "the reason names the trailing slash",
        () -> Account.equal(true, body.contains("called with a trailing slash")));
  }

  private static void mustFail(Cachette net) {
    try {
      net.close();
    } catch (AssertionError failure) {
      Account.equal(true, failure.getMessage().contains(MISTAKE));
      return;
    }
    throw new AssertionError("close() did not fail");
  }
}
