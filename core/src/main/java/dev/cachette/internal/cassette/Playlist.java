package dev.cachette.internal.cassette;

import dev.cachette.answer.Trouble;
import dev.cachette.cassette.CassetteException;
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
 * Which recording answers which request, and whose turn it is among those that are alike.
 *
 * <p>Recordings are found by their request line, which the index has. Their bodies are read where a
 * request asks for that line the first time, and then found by what they share.
 */
final class Playlist {

  private final Recordings recordings;
  private final Matching matching;
  private final Fingerprint fingerprint;
  private final Map<String, List<Integer>> byLine = new HashMap<>();
  private final Map<String, Map<String, List<Integer>>> byRest = new HashMap<>();

  /** Attempts to connect that failed, by host, with how many exchanges stand before each. */
  private final Map<String, List<Attempt>> attempts = new LinkedHashMap<>();

  /** How many exchanges there are, by host. */
  private final Map<String, int[]> exchanges = new HashMap<>();

  private final Map<String, Integer> played = new HashMap<>();
  private final Map<String, Integer> playedOf = new HashMap<>();
  private final Map<String, Integer> attempted = new HashMap<>();

  /** Nobody was there: such an exchange was no request yet. */
  private record Attempt(int at, int exchangesBefore) {}

  Playlist(Recordings recordings, Matching matching) {
    this.recordings = recordings;
    this.matching = matching;
    this.fingerprint = new Fingerprint(matching);
    List<HarIndex.Entry> entries = recordings.index().entries();
    for (int at = 0; at < entries.size(); at++) {
      HarIndex.Entry entry = entries.get(at);
      if (!entry.url().startsWith("http")) {
        // Browsers list what they take from elsewhere, too, such as data: URLs.
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
        byLine.merge(fingerprint.ofLine(entry.method(), uri), List.of(at), Playlist::joined);
      }
    }
  }

  /** Most are alone, and a list of one is small. */
  private static List<Integer> joined(List<Integer> some, List<Integer> more) {
    List<Integer> all = some instanceof ArrayList<Integer> ? some : new ArrayList<>(some);
    all.addAll(more);
    return all;
  }

  /**
   * The place of the recording whose turn it is, if one fits the request; secrets are markers in
   * both.
   */
  Optional<Integer> next(Request request) {
    String line = fingerprint.ofLine(request.method(), request.uri());
    List<Integer> alike = byLine.getOrDefault(line, List.of());
    if (alike.isEmpty()) {
      return Optional.empty();
    }
    String rest = fingerprint.ofRest(request);
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
    playedOf.merge(request.uri().host(), 1, Integer::sum);
    return Optional.of(chosen.get(Math.min(count, chosen.size() - 1)));
  }

  /** The trouble that the next connection to a host meets, if one was recorded there. */
  Optional<Trouble.Kind> nextTrouble(String host) {
    List<Attempt> all = attempts.getOrDefault(host, List.of());
    int turn = attempted.getOrDefault(host, 0);
    return turn < all.size() && playedOf.getOrDefault(host, 0) >= all.get(turn).exchangesBefore
        ? recordings.get(all.get(turn).at).trouble()
        : Optional.empty();
  }

  /** The turn of that trouble is over. */
  void skipTrouble(String host) {
    attempted.merge(host, 1, Integer::sum);
  }

  /** Whether anything was recorded of a host. */
  boolean knows(String host) {
    return exchanges.containsKey(host);
  }

  /** Whether there is a trouble at all that comes before a request. */
  boolean hasTroubles() {
    return !attempts.isEmpty();
  }

  /** Those that are worth a look where none fits: of the same path first, then of the same host. */
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

  /** From the first recording on again. */
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
            .computeIfAbsent(fingerprint.ofRest(exchange.request()), unused -> new ArrayList<>(1))
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
                  + "%s\nMend: correct it there.",
              recordings.index().name(), entry.line(), at, malformed.getMessage()));
    }
  }
}
