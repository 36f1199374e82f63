package dev.cachette.internal.cassette;

import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.cassette.Exchange;
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
 * What is written when a recording ends: what was recorded, and of what stands in the file by then
 * all that others have put there meanwhile. Entries that are kept are kept byte by byte, with
 * whatever other programs have written into them; so are those that were recorded again with
 * nothing changed but the time.
 */
public final class Merge {

  private static final String CREATOR = "Cachette";
  private static final JsonNodeFactory NODES = JsonNodeFactory.instance;

  private final Recordings before;
  private final List<Exchange> recorded;
  private final boolean rewriting;
  private final Varying varying;

  /**
   * A merge.
   *
   * @param before what stood in the file when the recording began
   * @param rewriting whether what stood there before is replaced
   * @param varying what differs by nature
   */
  public Merge(Recordings before, List<Exchange> recorded, boolean rewriting, Varying varying) {
    this.varying = varying;
    this.before = before;
    this.recorded = List.copyOf(recorded);
    this.rewriting = rewriting;
  }

  /**
   * Writes the file.
   *
   * @param current what stands in it now
   * @param version of Cachette
   */
  public void writeTo(OutputStream out, Recordings current, Instant now, String version) {
    Bag old = new Bag();
    IntStream.range(0, before.size()).forEach(at -> old.add(Digests.of(before.text(at))));
    List<Integer> others = new ArrayList<>();
    List<Integer> kept = new ArrayList<>();
    for (int at = 0; at < current.size(); at++) {
      boolean isOld = old.remove(Digests.of(current.text(at)));
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

  /** What was recorded, without what another process has recorded just the same meanwhile. */
  private List<String> added(Recordings current, List<Integer> others) {
    Bag theirs = new Bag();
    others.forEach(at -> theirs.add(timeless(current.get(at))));
    Map<String, String> unchanged = new HashMap<>();
    if (rewriting) {
      IntStream.range(0, before.size())
          .forEach(at -> unchanged.putIfAbsent(timeless(before.get(at)), before.text(at)));
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

  private ObjectNode log(Recordings current, Instant now, String version) {
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
                exchange.trouble())));
  }

  /** How often there is each of many. */
  private static final class Bag {

    private final Map<String, Integer> counts = new HashMap<>();

    void add(String one) {
      counts.merge(one, 1, Integer::sum);
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
