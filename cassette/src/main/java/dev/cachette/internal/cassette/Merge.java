// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.cassette.Exchange;
import dev.cachette.internal.text.Digests;
import java.io.OutputStream;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import java.util.stream.Stream;

/**
 * The content of a cassette file after a recording: what was recorded, and what other processes
 * added in the meantime. Existing entries are kept byte by byte, with the members that other tools
 * added; so are entries that were recorded again with no change but the time.
 */
public final class Merge {

  private static final String CREATOR = "Cachette";
  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;

  private final RecordedExchanges before;
  private final List<Exchange> recorded;
  private final boolean rewriting;
  private final Varying varying;
  private final List<String> written = new ArrayList<>();

  /**
   * Prepares a merge.
   *
   * @param before the content of the file when the recording began
   * @param rewriting whether that content is replaced
   * @param varying the places that vary
   */
  public Merge(
      RecordedExchanges before, List<Exchange> recorded, boolean rewriting, Varying varying) {
    this.varying = varying;
    this.before = before;
    this.recorded = List.copyOf(recorded);
    this.rewriting = rewriting;
  }

  /** Replaces entries with these digests, which were written earlier in the same recording. */
  public Merge replacing(List<String> digests) {
    written.addAll(digests);
    return this;
  }

  /**
   * Writes the file.
   *
   * @param current its content now
   * @param version the version of Cachette
   */
  public void writeTo(OutputStream out, RecordedExchanges current, Instant now, String version) {
    Bag old = new Bag();
    IntStream.range(0, before.size()).forEach(at -> old.add(Digests.of(before.text(at))));
    Bag ours = new Bag();
    written.forEach(ours::add);
    List<Integer> others = new ArrayList<>();
    List<Integer> kept = new ArrayList<>();
    for (int at = 0; at < current.size(); at++) {
      String digest = Digests.of(current.text(at));
      if (ours.remove(digest)) {
        continue;
      }
      boolean isOld = old.remove(digest);
      if (!isOld) {
        others.add(at);
      }
      if (!isOld || !rewriting) {
        kept.add(at);
      }
    }
    List<String> added = added(current, others);
    Stream<String> keptTexts = kept.stream().map(current::text);
    Stream<String> entries =
        rewriting
            ? Stream.concat(added.stream(), keptTexts)
            : Stream.concat(keptTexts, added.stream());
    HarWriter.write(out, log(current, now, version), current.index().root(), entries::iterator);
  }

  /**
   * Returns what was recorded, except what another process recorded identically in the meantime.
   */
  private List<String> added(RecordedExchanges current, List<Integer> others) {
    Bag theirs = new Bag();
    others.forEach(at -> theirs.add(timeless(current.get(at))));
    Map<String, String> unchanged = new HashMap<>();
    if (rewriting) {
      IntStream.range(0, before.size())
          .forEach(at -> unchanged.putIfAbsent(timeless(before.get(at)), before.text(at)));
    }
    if (theirs.isEmpty() && unchanged.isEmpty()) {
      return recorded.stream().map(HarWriter::entry).toList();
    }
    List<String> added = new ArrayList<>();
    for (Exchange exchange : recorded) {
      String content = timeless(exchange);
      if (!theirs.remove(content)) {
        String text = unchanged.remove(content);
        added.add(text == null ? HarWriter.entry(exchange) : text);
      }
    }
    return added;
  }

  private ObjectNode log(RecordedExchanges current, Instant now, String version) {
    ObjectNode log = NODES.objectNode();
    ObjectNode old = current.index().log();
    log.put("version", HarWriter.VERSION);
    if (old.has("creator")) {
      log.set("creator", old.get("creator"));
    } else {
      log.set("creator", NODES.objectNode().put("name", CREATOR).put("version", version));
    }
    if (!recorded.isEmpty()) {
      log.put(RecordedAt.MEMBER, HarWriter.written(now));
    }
    if (!varying.isEmpty()) {
      log.set(Varying.MEMBER, varying.written());
    }
    old.properties().stream()
        .filter(member -> !log.has(member.getKey()))
        .forEach(member -> log.set(member.getKey(), member.getValue()));
    return log;
  }

  private static String timeless(Exchange exchange) {
    return Digests.of(
        HarWriter.entry(
            new Exchange(
                Instant.EPOCH,
                Duration.ZERO,
                exchange.protocol(),
                exchange.request(),
                exchange.response(),
                exchange.fault(),
                List.of(),
                exchange.tokens())));
  }

  /** Counts equal elements. */
  private static final class Bag {

    private final Map<String, Integer> counts = new HashMap<>();

    void add(String one) {
      counts.merge(one, 1, Integer::sum);
    }

    boolean isEmpty() {
      return counts.isEmpty();
    }

    boolean remove(String one) {
      int count = counts.getOrDefault(one, 0);
      if (count == 0) {
        return false;
      }
      counts.put(one, count - 1);
      return true;
    }
  }
}
