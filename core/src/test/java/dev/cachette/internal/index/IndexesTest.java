// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.index;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Generator;
import dev.cachette.Samples;
import dev.cachette.http.Request;
import dev.cachette.internal.match.Verdict;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.Received;
import dev.cachette.match.RequestPattern;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** An index finds the same among generated patterns as a search through all of them. */
@Tag("once")
class IndexesTest {

  private static final String[] METHODS = {"GET", "POST", "GET|HEAD", "*", "PUT"};
  private static final String[] ORIGINS = {
    "https://tides.example",
    "https://berths.example",
    "https://berths.example:8443",
    "http://berths.example",
    "https://{harbour}.example",
    "https://*.example",
    "*"
  };
  private static final String[] SEGMENTS = {
    "v1", "v2", "stations", "north", "{station}", "tide-{day}", "b%20c", "{a}.{b}", ""
  };
  private static final String[] REQUESTED = {
    "v1", "v2", "stations", "north", "nord", "tide-7", "b%20c", "x.y", "", "V1"
  };

  @Test
  void candidatesAreAllThatMatchMostSpecificFirst() {
    Generator random = new Generator(20310403);
    for (int round = 0; round < 60; round++) {
      List<RequestPattern> patterns = patterns(random, 80);
      PatternIndex<RequestPattern> index = new PatternIndex<>(MatchInternals.mostSpecificFirst());
      patterns.forEach(it -> index.add(it, it));

      for (int call = 0; call < 60; call++) {
        Received received = MatchInternals.received(request(random));
        List<RequestPattern> found = index.candidates(MatchInternals.parsed(received));
        Set<RequestPattern> candidates = new HashSet<>(found);
        for (RequestPattern each : patterns) {
          boolean matches = MatchInternals.match(each, received).isPresent();
          assertTrue(!matches || candidates.contains(each), () -> each + " for " + received);
          assertEquals(matches, verdict(each, received).fits(), each.line());
          assertTrue(!matches || MatchInternals.likeness(each, received) > 0, each.line());
          assertTrue(!matches || mayReach(each, received), each.line());
        }
        for (int at = 1; at < found.size(); at++) {
          assertTrue(
              MatchInternals.mostSpecificFirst().compare(found.get(at - 1), found.get(at)) <= 0);
        }
      }
    }
  }

  @Test
  void aPatternThatCoversAnotherMatchesAllThatItMatches() {
    Generator random = new Generator(20310404);
    int covered = 0;
    for (int round = 0; round < 60; round++) {
      List<RequestPattern> patterns = patterns(random, 60);
      CoverIndex<RequestPattern> index = new CoverIndex<>();
      patterns.forEach(it -> index.add(it, it));
      List<Received> calls = new ArrayList<>();
      for (int call = 0; call < 60; call++) {
        calls.add(MatchInternals.received(request(random)));
      }
      for (RequestPattern each : patterns) {
        List<RequestPattern> covering = index.covering(each);
        covered += covering.size() - 1;
        assertEquals(
            patterns.stream().filter(it -> MatchInternals.covers(it, each)).toList(), covering);
        for (RequestPattern wider : covering) {
          for (Received received : calls) {
            assertTrue(
                MatchInternals.match(each, received).isEmpty()
                    || MatchInternals.match(wider, received).isPresent(),
                () -> wider + " covers " + each + ", but not " + received);
          }
        }
      }
    }
    assertTrue(covered > 100, "covered: " + covered);
  }

  private static Verdict verdict(RequestPattern pattern, Received received) {
    return MatchInternals.examine(pattern, received.request());
  }

  private static boolean mayReach(RequestPattern pattern, Received received) {
    String host = received.request().uri().host();
    OptionalInt port = OptionalInt.of(received.request().uri().port());
    return MatchInternals.mayReach(pattern, host, port)
        && (MatchInternals.host(pattern).isEmpty()
            || MatchInternals.host(pattern).get().equals(host));
  }

  private static List<RequestPattern> patterns(Generator random, int number) {
    List<RequestPattern> patterns = new ArrayList<>();
    while (patterns.size() < number) {
      String origin = random.one(ORIGINS);
      StringBuilder line = new StringBuilder(random.one(METHODS)).append(' ').append(origin);
      Set<String> used = new HashSet<>();
      for (int at = random.below(4); at > 0; at--) {
        String segment = random.one(SEGMENTS);
        // A name may stand once in a template.
        line.append('/').append(used.add(segment) || !segment.contains("{") ? segment : "v1");
      }
      line.append(random.below(5) == 0 ? "/{+rest}" : "");
      line.append(random.below(6) == 0 ? "?day=7" : "");
      try {
        patterns.add(RequestPattern.of(line.toString()));
      } catch (IllegalArgumentException malformed) {
        // Of two that are side by side, one is generated again.
      }
    }
    return patterns;
  }

  private static Request request(Generator random) {
    StringBuilder line = new StringBuilder(random.one("GET", "POST", "HEAD", "PUT", "DELETE"));
    line.append(' ')
        .append(
            random.one(
                "https://tides.example",
                "https://berths.example",
                "https://berths.example:8443",
                "http://berths.example",
                "https://deep.tides.example"));
    for (int at = random.below(5); at > 0; at--) {
      line.append('/').append(random.one(REQUESTED));
    }
    return Samples.request(line + random.one("", "", "?day=7", "?day=7&x=1"));
  }
}
