// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.cassette.FileRedaction;
import dev.cachette.internal.convert.StubsOfExchanges;
import dev.cachette.internal.stubfile.StubWriter;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;

/**
 * Converts a cassette to a stub file: one stub per request, with its answers in turn. Only what
 * belongs to one stub is read at once, as a cassette may be large.
 */
final class StubsOfCassette {

  private static final String YAML = "stubs:\n";
  private static final String JSON = "{\n  \"stubs\" : [";

  private final FileRedaction redaction;
  private final ParallelEntries parallel;
  private final Set<String> placeholders;
  private final Consumer<String> remark;

  /**
   * Creates a conversion.
   *
   * @param redaction of the cassette, with all entries looked at
   * @param placeholders gets the names of placeholders for secrets in what is written
   * @param remark gets what is skipped
   */
  StubsOfCassette(
      FileRedaction redaction,
      ParallelEntries parallel,
      Set<String> placeholders,
      Consumer<String> remark) {
    this.redaction = redaction;
    this.parallel = parallel;
    this.placeholders = placeholders;
    this.remark = remark;
  }

  /** A stub as text, with the names of placeholders in it. */
  private record Written(String text, Set<String> placeholders) {}

  /** Returns the parts of a stub file with the stubs of these exchanges. */
  Iterable<String> of(List<Integer> wanted, StubFormat format) {
    List<List<Integer>> stubs = stubs(wanted);
    boolean json = format == StubFormat.JSON;
    Iterable<Written> written =
        parallel.ahead(redaction, stubs.size(), (it, at) -> written(it, stubs.get(at), json));
    return () -> new Texts(written.iterator(), json);
  }

  /** Returns the exchanges of each stub. */
  private List<List<Integer>> stubs(List<Integer> wanted) {
    Map<String, List<Integer>> stubs = new LinkedHashMap<>();
    Iterator<Integer> exchange = wanted.iterator();
    for (StubsOfExchanges.Kind kind :
        parallel.ahead(
            redaction,
            wanted.size(),
            (it, at) -> StubsOfExchanges.kind(it.withRedactedRequest(wanted.get(at))))) {
      kind.remarks().forEach(remark);
      int at = exchange.next();
      if (!kind.pattern().isEmpty()) {
        stubs.computeIfAbsent(kind.pattern(), unused -> new ArrayList<>()).add(at);
      }
    }
    return List.copyOf(stubs.values());
  }

  private static Written written(FileRedaction redaction, List<Integer> exchanges, boolean json) {
    ObjectNode stub = StubsOfExchanges.stub(exchanges.stream().map(redaction::exchange).toList());
    String text =
        json
            ? StubFormat.laidOut(stub).replace("\n", "\n  ")
            : StubWriter.yaml(StubWriter.file(List.of(stub))).substring(YAML.length());
    return new Written(text, CassettePlaceholders.in(stub.toString()));
  }

  /** The text of the file, around and between the stubs. */
  private final class Texts implements Iterator<String> {

    private final Iterator<Written> stubs;
    private final boolean json;
    private boolean begun;
    private boolean ended;

    Texts(Iterator<Written> stubs, boolean json) {
      this.stubs = stubs;
      this.json = json;
    }

    @Override
    public boolean hasNext() {
      return !ended;
    }

    @Override
    public String next() {
      String before = begun ? json ? ", " : "" : json ? JSON + " " : YAML;
      if (!stubs.hasNext()) {
        ended = true;
        return end();
      }
      begun = true;
      Written stub = stubs.next();
      placeholders.addAll(stub.placeholders());
      return before + stub.text();
    }

    private String end() {
      if (json) {
        return (begun ? "" : JSON) + " ]\n}";
      }
      return begun ? "" : "stubs: []\n";
    }
  }
}
