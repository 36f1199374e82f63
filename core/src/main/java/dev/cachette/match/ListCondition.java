// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.result.Cause;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;

/** Conditions on several values: of a repeated parameter, or the elements of one JSON array. */
final class ListCondition {

  private ListCondition() {}

  /** Returns a condition for these values in this order. */
  static ValueCondition inOrder(List<ValueCondition> wanted) {
    return new ManyCondition(
        mask -> "exactly " + words(wanted, mask),
        written("list", wanted),
        found -> {
          List<JsonNode> items = elements(found);
          if (items.size() != wanted.size()) {
            return false;
          }
          for (int at = 0; at < items.size(); at++) {
            if (!holds(wanted.get(at), items.get(at), found)) {
              return false;
            }
          }
          return true;
        },
        found ->
            inAnyOrder(wanted).holds(found)
                ? Optional.of(
                    Cause.certain(
                        "the same values in another order; inAnyOrder(...) accepts any order"))
                : Optional.empty());
  }

  /** Returns a condition for these values in any order. */
  static ValueCondition inAnyOrder(List<ValueCondition> wanted) {
    return new ManyCondition(
        mask -> "in any order, exactly " + words(wanted, mask),
        written("inAnyOrder", wanted),
        found -> {
          List<JsonNode> items = elements(found);
          return items.size() == wanted.size() && new Assignment(wanted, items, found).isComplete();
        });
  }

  private static boolean holds(ValueCondition condition, JsonNode item, Found found) {
    return condition.holds(new Found(List.of(item), found.typed(), found.mask()));
  }

  /** Returns the elements of the only value, if that is an array; otherwise the values. */
  static List<JsonNode> elements(Found found) {
    if (found.items().size() != 1 || !found.items().get(0).isArray()) {
      return found.items();
    }
    List<JsonNode> elements = new ArrayList<>();
    found.items().get(0).forEach(elements::add);
    return elements;
  }

  private static String words(List<ValueCondition> wanted, UnaryOperator<String> mask) {
    return wanted.isEmpty()
        ? "no values"
        : wanted.stream()
            .map(each -> each.describe(mask).replaceFirst("^the number ", ""))
            .collect(Collectors.joining(", "));
  }

  private static Optional<JsonNode> written(String key, List<ValueCondition> wanted) {
    return StubNodes.member(
        key, StubNodes.all(wanted.stream().map(ValueCondition::written).toList()));
  }

  /** Assigns each item to a condition of its own, by augmenting paths. */
  private static final class Assignment {
    private final List<ValueCondition> wanted;
    private final List<JsonNode> items;
    private final Found found;
    private final int[] itemOf;

    Assignment(List<ValueCondition> wanted, List<JsonNode> items, Found found) {
      this.wanted = wanted;
      this.items = items;
      this.found = found;
      this.itemOf = new int[wanted.size()];
      Arrays.fill(itemOf, -1);
    }

    boolean isComplete() {
      for (int item = 0; item < items.size(); item++) {
        if (!assign(item, new boolean[wanted.size()])) {
          return false;
        }
      }
      return true;
    }

    private boolean assign(int item, boolean[] tried) {
      for (int at = 0; at < wanted.size(); at++) {
        if (tried[at] || !holds(wanted.get(at), items.get(item), found)) {
          continue;
        }
        tried[at] = true;
        if (itemOf[at] < 0 || assign(itemOf[at], tried)) {
          itemOf[at] = item;
          return true;
        }
      }
      return false;
    }
  }
}
