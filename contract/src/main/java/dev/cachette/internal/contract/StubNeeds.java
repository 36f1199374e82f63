// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.internal.stubfile.NeedsCheck;
import java.util.List;

/** The key {@code needs} of a stub, set from Java. */
public final class StubNeeds {

  private StubNeeds() {}

  /**
   * Validates a need as that of a stub file.
   *
   * @throws IllegalArgumentException if the place or the need is invalid
   */
  public static void require(String place, ObjectNode need) {
    List<String> problems = NeedsCheck.problems(StubNodes.member(place, need));
    if (!problems.isEmpty()) {
      throw Refusals.argument(problems.get(0));
    }
  }

  /** Adds a need to those that a stub has at the place. */
  public static StubSpec with(StubSpec stub, String place, ObjectNode need) {
    JsonNode before = stub.extensions().get(Needs.KEY);
    ObjectNode all = before == null ? StubNodes.object() : before.deepCopy();
    ObjectNode there = StubNodes.object();
    JsonNode old = all.get(place);
    if (old != null && old.isTextual()) {
      there.put(old.textValue(), true);
    } else if (old instanceof ObjectNode members) {
      there.setAll(members);
    }
    there.setAll(need);
    all.set(place, there);
    return stub.with(Needs.KEY, all);
  }
}
