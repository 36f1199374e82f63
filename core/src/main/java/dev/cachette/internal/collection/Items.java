// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.collection;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.StubNodes;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** JSON objects by identifier, in insertion order. Thread-safe. */
public final class Items {

  private final Map<String, ObjectNode> items = new LinkedHashMap<>();
  private List<ObjectNode> seed = List.of();
  private String idMember = "id";
  private long lastNumber;
  private boolean etags;

  /** Sets the member that identifies an object. */
  public synchronized void identifiedBy(String member) {
    idMember = member;
    startAgain();
  }

  /**
   * Sets the initial objects.
   *
   * @throws IllegalArgumentException if it is not a JSON array of objects with an identifier
   */
  public synchronized void seed(String json) {
    JsonNode array = Json.read("seed(json)", json);
    List<ObjectNode> objects = new ArrayList<>();
    for (JsonNode each : array) {
      if (!(each instanceof ObjectNode object)) {
        throw new IllegalArgumentException(
            "seed(json) needs an array of objects, but element " + objects.size() + " is " + each);
      }
      objects.add(object);
    }
    if (!array.isArray()) {
      throw new IllegalArgumentException("seed(json) needs an array of objects, not " + array);
    }
    seed = objects;
    startAgain();
  }

  /** Gives the objects entity tags, and supports conditional requests. */
  public synchronized void withEtags() {
    etags = true;
  }

  /** Returns true if the objects have entity tags. */
  synchronized boolean hasEtags() {
    return etags;
  }

  /** Returns the initial objects, for a stub file. */
  public synchronized JsonNode written(String url) {
    ObjectNode form = StubNodes.member("url", StubNodes.text(url));
    if (!idMember.equals("id")) {
      form.put("identifiedBy", idMember);
    }
    if (etags) {
      form.put("etags", true);
    }
    if (!seed.isEmpty()) {
      form.putArray("seed").addAll(seed);
    }
    return form;
  }

  /** Resets to the initial objects. */
  public synchronized void startAgain() {
    items.clear();
    lastNumber = 0;
    seed.forEach(object -> add(object.deepCopy()));
  }

  /** Returns all objects. */
  public synchronized List<JsonNode> all() {
    return items.values().stream().<JsonNode>map(ObjectNode::deepCopy).toList();
  }

  /** Returns the object with this identifier. */
  synchronized Optional<ObjectNode> find(String id) {
    return Optional.ofNullable(items.get(id)).map(ObjectNode::deepCopy);
  }

  /** Returns the member that identifies an object. */
  synchronized String idMember() {
    return idMember;
  }

  /**
   * Adds an object, with a new identifier if it has none.
   *
   * @return the identifier; empty if it is taken
   */
  synchronized Optional<String> add(ObjectNode object) {
    if (!object.hasNonNull(idMember)) {
      object.set(idMember, nextId());
    }
    String id = object.get(idMember).asText();
    if (id.matches("[0-9]{1,18}")) {
      lastNumber = Math.max(lastNumber, Long.parseLong(id));
    }
    return items.putIfAbsent(id, object) == null ? Optional.of(id) : Optional.empty();
  }

  /** Replaces or adds an object; returns true if it replaced one. */
  synchronized boolean put(String id, ObjectNode object) {
    return items.put(id, object) != null;
  }

  synchronized boolean remove(String id) {
    return items.remove(id) != null;
  }

  /** Returns the next number, as a string if the identifiers so far are strings. */
  private JsonNode nextId() {
    boolean numbers = items.values().stream().allMatch(item -> item.path(idMember).isNumber());
    long next = ++lastNumber;
    return numbers
        ? JsonNodeFactory.instance.numberNode(next)
        : JsonNodeFactory.instance.textNode(Long.toString(next));
  }
}
