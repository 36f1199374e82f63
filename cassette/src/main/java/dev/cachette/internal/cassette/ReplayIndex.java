// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import dev.cachette.answer.Fault;
import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.CassetteInternals;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Matching;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Finds the recorded exchange that answers a request, and tracks whose turn it is among equal ones.
 *
 * <p>Exchanges are found by request line, from the index. Their bodies are read when a request has
 * that line for the first time, and then found by fingerprint.
 */
final class ReplayIndex {

  private final RecordedExchanges recordings;
  private final Matching matching;
  private final Map<String, List<Integer>> byLine = new HashMap<>();
  private final Map<String, Map<String, List<Integer>>> byRest = new HashMap<>();

  /** Failed attempts to connect by host, each with the number of exchanges before it. */
  private final Map<String, List<Attempt>> attempts = new LinkedHashMap<>();

  /** The number of exchanges by host. */
  private final Map<String, int[]> exchanges = new HashMap<>();

  private final Map<String, Integer> played = new HashMap<>();
  private final Map<String, Integer> playedOf = new HashMap<>();
  private final Map<String, Integer> attempted = new HashMap<>();

  /** The connection failed, so there was no request. */
  private record Attempt(int at, int exchangesBefore) {}

  ReplayIndex(RecordedExchanges recordings, Matching matching) {
    this.recordings = recordings;
    this.matching = matching;
    List<HarIndex.Entry> entries = recordings.index().entries();
    for (int at = 0; at < entries.size(); at++) {
      HarIndex.Entry entry = entries.get(at);
      if (!entry.url().startsWith("http")) {
        // Browsers also list resources without a network request, such as data: URLs.
        continue;
      }
      Uri uri = uri(entry, at);
      if (entry.method().equals(FailedConnection.METHOD)) {
        int before = exchanges.getOrDefault(uri.host(), new int[1])[0];
        attempts
            .computeIfAbsent(uri.host(), unused -> new ArrayList<>())
            .add(new Attempt(at, before));
      } else {
        exchanges.computeIfAbsent(uri.host(), unused -> new int[1])[0]++;
        byLine.merge(
            CassetteInternals.keyOfLine(matching, entry.method(), PlainForms.of(uri)),
            List.of(at),
            ReplayIndex::joined);
      }
    }
  }

  /** Most lines have one exchange, so its list is small. */
  private static List<Integer> joined(List<Integer> some, List<Integer> more) {
    List<Integer> all = some instanceof ArrayList<Integer> ? some : new ArrayList<>(some);
    all.addAll(more);
    return all;
  }

  /**
   * Returns the index of the exchange whose turn it is, if one matches the request; both contain
   * placeholders for secrets.
   */
  Optional<Integer> next(Request arrived) {
    Request request = PlainForms.of(arrived);
    String line = CassetteInternals.keyOfLine(matching, request.method(), request.uri());
    List<Integer> alike = byLine.getOrDefault(line, List.of());
    if (alike.isEmpty()) {
      return Optional.empty();
    }
    String rest = CassetteInternals.keyOfRest(matching, request);
    List<Integer> fitting =
        byRest.computeIfAbsent(line, unused -> restsOf(alike)).getOrDefault(rest, List.of());
    List<Integer> chosen =
        matching
            .comparison()
            .map(
                same ->
                    fitting.stream()
                        .filter(at -> same.test(recordings.get(at).request(), request))
                        .toList())
            .orElse(fitting);
    if (chosen.isEmpty()) {
      return Optional.empty();
    }
    String turn = line + "\n" + rest + "\n" + chosen.get(0);
    int count = played.getOrDefault(turn, 0);
    if (matching.isOnceEach() && count >= chosen.size()) {
      return Optional.empty();
    }
    played.put(turn, count + 1);
    playedFor(request.uri().host());
    return Optional.of(chosen.get(Math.min(count, chosen.size() - 1)));
  }

  /** Returns true if there is an exchange with its method and URL. */
  boolean knows(Request request) {
    return byLine.containsKey(
        CassetteInternals.keyOfLine(matching, request.method(), PlainForms.of(request.uri())));
  }

  /** Returns the recorded fault that the next connection to a host gets, if there is one. */
  Optional<Fault.Kind> nextFault(String host) {
    List<Attempt> all = attempts.getOrDefault(host, List.of());
    int turn = attempted.getOrDefault(host, 0);
    return turn < all.size() && playedOf.getOrDefault(host, 0) >= all.get(turn).exchangesBefore
        ? recordings.get(all.get(turn).at).fault()
        : Optional.empty();
  }

  /** Notes that an exchange with a host was replayed. */
  void playedFor(String host) {
    playedOf.merge(host, 1, Integer::sum);
  }

  /** Moves on past that fault. */
  void skipFault(String host) {
    attempted.merge(host, 1, Integer::sum);
  }

  /** Returns true if anything was recorded for a host. */
  boolean knows(String host) {
    return exchanges.containsKey(host);
  }

  /** Returns true if it has a fault that happens before there is a request. */
  boolean hasFaults() {
    return !attempts.isEmpty();
  }

  /** Returns the exchanges to compare if none matches: same path first, then same host. */
  List<Integer> near(Request request, int most) {
    Set<Integer> near = new HashSet<>();
    List<Integer> found = new ArrayList<>();
    List<HarIndex.Entry> entries = recordings.index().entries();
    for (int pass = 0; pass < 3 && found.size() < most; pass++) {
      for (int at = 0; at < entries.size() && found.size() < most; at++) {
        if (!near.contains(at) && isNear(entries.get(at), request.uri(), pass)) {
          near.add(at);
          found.add(at);
        }
      }
    }
    return found;
  }

  private static boolean isNear(HarIndex.Entry entry, Uri wanted, int pass) {
    if (!entry.url().startsWith("http") || entry.method().equals(FailedConnection.METHOD)) {
      return false;
    }
    Uri uri = Uri.parse(entry.url());
    return switch (pass) {
      case 0 -> uri.origin().equals(wanted.origin()) && uri.path().equals(wanted.path());
      case 1 -> uri.host().equals(wanted.host());
      default -> true;
    };
  }

  /** Starts again with the first exchange. */
  void startAgain() {
    played.clear();
    playedOf.clear();
    attempted.clear();
  }

  private Map<String, List<Integer>> restsOf(List<Integer> alike) {
    Map<String, List<Integer>> rests = new HashMap<>();
    for (int at : alike) {
      Exchange exchange = recordings.get(at);
      if (exchange.isAnswered()) {
        rests
            .computeIfAbsent(
                CassetteInternals.keyOfRest(matching, PlainForms.of(exchange.request())),
                unused -> new ArrayList<>(1))
            .add(at);
      }
    }
    return rests;
  }

  private Uri uri(HarIndex.Entry entry, int at) {
    try {
      return Uri.parse(entry.url());
    } catch (IllegalArgumentException malformed) {
      throw new CassetteException(
          String.format(
              "The cassette %s cannot be read: the entry in line %d, /log/entries/%d/request/url: "
                  + "%s\nFix: correct it there.",
              recordings.index().name(), entry.line(), at, malformed.getMessage()));
    }
  }
}
