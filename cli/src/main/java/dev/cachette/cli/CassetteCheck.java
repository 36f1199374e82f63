package dev.cachette.cli;

import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Redaction;
import dev.cachette.http.Request;
import dev.cachette.internal.cassette.FileRedaction;
import dev.cachette.internal.openapi.Description;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Checks a cassette. */
final class CassetteCheck {

  private final Path file;
  private final CassetteOnDisk cassette;
  private final List<Finding> findings = new ArrayList<>();

  private CassetteCheck(Path file, CassetteOnDisk cassette) {
    this.file = file;
    this.cassette = cassette;
  }

  static List<Finding> of(
      Path file, Redaction rules, @Nullable Duration staleAfter, Descriptions descriptions) {
    try (CassetteOnDisk cassette = new CassetteOnDisk(file)) {
      CassetteCheck check = new CassetteCheck(file, cassette);
      check.bodies();
      check.secrets(rules);
      check.repeated();
      check.age(staleAfter);
      check.hold(descriptions);
      return check.findings;
    } catch (CassetteException unreadable) {
      String said = Failure.oneLine(unreadable.getMessage());
      return List.of(new Finding(file.toString(), line(said), 1, "", said));
    }
  }

  /** Returns the line in the message. */
  private static int line(String message) {
    var place = Pattern.compile("line (\\d+)").matcher(message);
    return place.find() ? Integer.parseInt(place.group(1)) : 1;
  }

  /** Finds responses whose body was not exported; they can be shown, but not replayed. */
  private void bodies() {
    for (int at = 0; at < cassette.exchanges().size(); at++) {
      try {
        cassette.recordings().replayable(at);
      } catch (CassetteException missing) {
        String said = Failure.oneLine(missing.getMessage());
        findings.add(
            new Finding(
                file.toString(),
                cassette.recordings().line(at),
                1,
                "log.entries[" + at + "]",
                said.substring(said.indexOf("/log/"))));
      }
    }
  }

  private void secrets(Redaction rules) {
    FileRedaction redaction = new FileRedaction(cassette.recordings(), rules);
    for (int at : redaction.changedAt()) {
      add(at, "contains a secret that recording would redact. Fix: cachette redact");
    }
    redaction
        .likely()
        .forEach(
            said ->
                findings.add(
                    new Finding(
                        file.toString(),
                        1,
                        1,
                        "",
                        "contains what looks like a secret:" + said.replaceAll("\\s+", " "))));
  }

  private void repeated() {
    Map<String, Integer> seen = new HashMap<>();
    for (int at = 0; at < cassette.exchanges().size(); at++) {
      Exchange exchange = cassette.exchanges().get(at);
      Integer before = seen.putIfAbsent(ExchangeText.of(exchange), at);
      if (before != null) {
        add(at, String.format("duplicate of exchange %d, which answers anyway.", before + 1));
      }
    }
  }

  private void age(@Nullable Duration staleAfter) {
    Optional<Instant> recorded = cassette.cassette().recordedAt();
    if (staleAfter != null && recorded.isPresent()) {
      Duration age = Duration.between(recorded.get(), Instant.now());
      if (age.compareTo(staleAfter) > 0) {
        findings.add(
            new Finding(
                file.toString(),
                1,
                1,
                "",
                String.format(
                    "recorded at %s, %d days ago. Fix: cachette refresh, or record it again.",
                    recorded.get(), age.toDays())));
      }
    }
  }

  private void hold(Descriptions descriptions) {
    for (int at = 0; at < cassette.exchanges().size(); at++) {
      Exchange exchange = cassette.exchanges().get(at);
      Request request = exchange.request();
      Optional<Description> description = descriptions.at(request.uri().origin());
      if (description.isPresent()) {
        List<String> said = new ArrayList<>();
        said.addAll(
            Misfits.of(
                "the request violates the API description", description.get().refusals(request)));
        exchange
            .response()
            .ifPresent(
                response ->
                    said.addAll(
                        Misfits.of(
                            "the response violates the API description",
                            description.get().impossible(request, response, true))));
        for (String each : said) {
          add(at, each);
        }
      }
    }
  }

  private void add(int at, String finding) {
    Exchange exchange = cassette.exchanges().get(at);
    findings.add(
        new Finding(
            file.toString(),
            cassette.recordings().line(at),
            1,
            "log.entries[" + at + "]",
            exchange.request() + ": " + finding));
  }
}
