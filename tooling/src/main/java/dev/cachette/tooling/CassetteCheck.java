// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Redaction;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.internal.cassette.FileRedaction;
import dev.cachette.internal.openapi.Description;
import dev.cachette.internal.text.Digests;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
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
      Path file,
      Redaction rules,
      @Nullable Duration staleAfter,
      Descriptions descriptions,
      Consumer<String> skipped) {
    try (CassetteOnDisk cassette = new CassetteOnDisk(file, skipped)) {
      CassetteCheck check = new CassetteCheck(file, cassette);
      check.entries(rules, descriptions);
      check.age(staleAfter);
      check.findings.sort(Comparator.comparingInt(Finding::line));
      return check.findings;
    } catch (CassetteException unreadable) {
      String said = ToolingException.oneLine(unreadable.getMessage());
      return List.of(new Finding(file.toString(), line(said), 1, "", said));
    }
  }

  /** Returns the line in the message. */
  private static int line(String message) {
    var place = Pattern.compile("line (\\d+)").matcher(message);
    return place.find() ? Integer.parseInt(place.group(1)) : 1;
  }

  /** Reads each entry once: the file may be large. */
  private void entries(Redaction rules, Descriptions descriptions) {
    Looked[] looked = new Looked[cassette.exchanges().size()];
    FileRedaction redaction;
    try (ParallelEntries parallel = new ParallelEntries()) {
      redaction =
          parallel.lookAt(
              cassette.recordings(),
              rules,
              (part, at) -> looked[at] = look(part, at, descriptions));
    }
    Map<String, Integer> seen = new HashMap<>();
    for (int at = 0; at < looked.length; at++) {
      findings.addAll(repeated(seen, at, looked[at]));
      findings.addAll(looked[at].findings());
    }
    for (int at : redaction.changedAt()) {
      findings.add(
          finding(
              at,
              looked[at].request(),
              "contains a secret that recording would redact. Fix: cachette redact"));
    }
    redaction
        .likely()
        .forEach(
            said ->
                findings.add(
                    whole("contains what looks like a secret:" + said.replaceAll("\\s+", " "))));
  }

  /**
   * The result of looking at an entry, instead of its content.
   *
   * @param request the request; empty if the entry is malformed
   * @param digest what is the same in a duplicate
   */
  private record Looked(String request, String digest, List<Finding> findings) {}

  private Looked look(FileRedaction redaction, int at, Descriptions descriptions) {
    try {
      Exchange exchange = redaction.lookAtReplayable(at);
      return new Looked(
          exchange.request().toString(), digest(exchange), misfits(at, exchange, descriptions));
    } catch (CassetteException malformed) {
      String said = ToolingException.oneLine(malformed.getMessage());
      String text = said.substring(Math.max(0, said.indexOf("/log/")));
      return new Looked("", "", List.of(finding(at, "", text)));
    }
  }

  private List<Finding> repeated(Map<String, Integer> seen, int at, Looked looked) {
    Integer before = looked.digest().isEmpty() ? null : seen.putIfAbsent(looked.digest(), at);
    return before == null
        ? List.of()
        : List.of(
            finding(
                at,
                looked.request(),
                String.format("duplicate of exchange %d, which answers anyway.", before + 1)));
  }

  /** Returns a digest of all but the time. */
  private static String digest(Exchange exchange) {
    Request request = exchange.request();
    StringBuilder text = new StringBuilder();
    text.append(request.method()).append(' ').append(request.uri().toJavaUri());
    text.append(exchange.outcome());
    add(text, request.headers(), request.body());
    exchange
        .response()
        .ifPresent(
            it -> {
              add(text, it.headers(), it.body());
              add(text, it.trailers(), Body.empty());
            });
    return Digests.of(text.toString());
  }

  private static void add(StringBuilder text, Headers headers, Body body) {
    headers.forEach(it -> text.append(it.name()).append(':').append(it.value()).append('\n'));
    text.append(Digests.of(body.bytes())).append('\n');
  }

  private void age(@Nullable Duration staleAfter) {
    Optional<Instant> recorded = cassette.content().recordedAt();
    if (staleAfter != null && recorded.isPresent()) {
      Duration age = Duration.between(recorded.get(), Instant.now());
      if (age.compareTo(staleAfter) > 0) {
        findings.add(
            whole(
                String.format(
                    "recorded at %s, %d days ago. Fix: cachette refresh, or record it again.",
                    recorded.get(), age.toDays())));
      }
    }
  }

  private List<Finding> misfits(int at, Exchange exchange, Descriptions descriptions) {
    List<Finding> misfits = new ArrayList<>();
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
      said.forEach(each -> misfits.add(finding(at, request.toString(), each)));
    }
    return misfits;
  }

  /** Returns a finding about the whole file. */
  private Finding whole(String text) {
    return new Finding(file.toString(), 1, 1, "", text);
  }

  private Finding finding(int at, String request, String text) {
    return new Finding(
        file.toString(),
        cassette.recordings().line(at),
        1,
        "log.entries[" + at + "]",
        request.isEmpty() ? text : request + ": " + text);
  }
}
