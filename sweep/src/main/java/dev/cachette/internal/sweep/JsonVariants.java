// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.BigIntegerNode;
import com.fasterxml.jackson.databind.node.NullNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.jsonpath.Located;
import java.math.BigInteger;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.BiConsumer;
import java.util.function.Predicate;

/**
 * A JSON value with one member changed, for each of its members in turn. Of arrays, the first
 * element is changed. If there are more members than are wanted, a seed chooses among them.
 */
final class JsonVariants {

  /** More than a long. */
  private static final BigInteger HUGE = BigInteger.TEN.pow(20);

  private final JsonNode json;
  private final int most;
  private final long seed;

  JsonVariants(JsonNode json, int most, long seed) {
    this.json = json;
    this.most = most;
    this.seed = seed;
  }

  /**
   * A changed value.
   *
   * @param place the path of its member: {@code $.berth.number}
   */
  record Changed(String place, JsonNode json) {}

  /** A member: the steps to its object, and its name. */
  private record Member(String place, List<Object> steps, String name, JsonNode value) {}

  /** Returns how many members it has. */
  int members() {
    return all().size();
  }

  private List<Member> all() {
    List<Member> members = new ArrayList<>();
    addMembers(Located.root(json), List.of(), members);
    return members;
  }

  List<Changed> withoutMembers() {
    return each(member -> true, ObjectNode::remove);
  }

  List<Changed> withNulls() {
    return each(
        member -> !member.value.isNull(), (object, name) -> object.set(name, NullNode.instance));
  }

  List<Changed> withHugeNumbers() {
    return each(
        member -> member.value.isNumber(),
        (object, name) -> object.set(name, BigIntegerNode.valueOf(HUGE)));
  }

  private List<Changed> each(Predicate<Member> wanted, BiConsumer<ObjectNode, String> change) {
    List<Member> members = all();
    members.removeIf(wanted.negate());
    List<Changed> changed = new ArrayList<>();
    for (Member member : chosen(members)) {
      JsonNode copy = json.deepCopy();
      JsonNode object = copy;
      for (Object step : member.steps) {
        object = step instanceof Integer at ? object.get(at) : object.get((String) step);
      }
      change.accept((ObjectNode) object, member.name);
      changed.add(new Changed(member.place, copy));
    }
    return changed;
  }

  private List<Member> chosen(List<Member> members) {
    if (members.size() <= most) {
      return members;
    }
    List<Integer> places = new ArrayList<>();
    for (int at = 0; at < members.size(); at++) {
      places.add(at);
    }
    Collections.shuffle(places, new Random(seed));
    return places.subList(0, most).stream().sorted().map(members::get).toList();
  }

  private static void addMembers(Located in, List<Object> steps, List<Member> to) {
    if (in.node() instanceof ObjectNode object) {
      for (Map.Entry<String, JsonNode> each : object.properties()) {
        String name = each.getKey();
        Located member = in.member(name);
        to.add(new Member(member.path(), steps, name, member.node()));
        addMembers(member, with(steps, name), to);
      }
    } else if (in.node() instanceof ArrayNode array && !array.isEmpty()) {
      addMembers(in.element(0), with(steps, 0), to);
    }
  }

  private static List<Object> with(List<Object> steps, Object step) {
    List<Object> more = new ArrayList<>(steps);
    more.add(step);
    return more;
  }
}
