package dev.cachette.internal.collection;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.Written;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * JSON objects by their identifier, in the order they were added. Safe to share between threads.
 */
public final class Items {

  private final Map<String, ObjectNode> items = new LinkedHashMap<>();
  private List<ObjectNode> seed = List.of();
  private String idMember = "id";
  private long lastNumber;

  /** Names the member that identifies an object. */
  public synchronized void identifiedBy(String member) {
    idMember = member;
    startAgain();
  }

  /**
   * Sets what is there at the start.
   *
   * @throws IllegalArgumentException if it is no JSON array of objects with an identifier
   */
  public synchronized void seed(String json) {
    JsonNode array = Json.read("seed(json)", json);
    List<ObjectNode> objects = new ArrayList<>();
    for (JsonNode each : array) {
      if (!(each instanceof ObjectNode object)) {
        throw new IllegalArgumentException(
            "seed(json) takes an array of objects, and element " + objects.size() + " is " + each);
      }
      objects.add(object);
    }
    if (!array.isArray()) {
      throw new IllegalArgumentException("seed(json) takes an array of objects, not " + array);
    }
    seed = objects;
    startAgain();
  }

  /** As a stub file has it: what is there at the start. */
  public synchronized JsonNode written(String url) {
    ObjectNode form = Written.member("url", Written.text(url));
    if (!idMember.equals("id")) {
      form.put("identifiedBy", idMember);
    }
    if (!seed.isEmpty()) {
      form.putArray("seed").addAll(seed);
    }
    return form;
  }

  /** Back to what was there at the start. */
  public synchronized void startAgain() {
    items.clear();
    lastNumber = 0;
    seed.forEach(object -> add(object.deepCopy()));
  }

  /** All objects. */
  public synchronized List<JsonNode> all() {
    return items.values().stream().<JsonNode>map(ObjectNode::deepCopy).toList();
  }

  /** The object with this identifier. */
  synchronized Optional<ObjectNode> find(String id) {
    return Optional.ofNullable(items.get(id)).map(ObjectNode::deepCopy);
  }

  /** The member that identifies an object. */
  synchronized String idMember() {
    return idMember;
  }

  /**
   * Adds an object, and gives it an identifier if it has none.
   *
   * @return the identifier; empty if there is another object with it
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

  /** Puts an object in the place of another one, or adds it; answers whether there was another. */
  synchronized boolean put(String id, ObjectNode object) {
    return items.put(id, object) != null;
  }

  synchronized boolean remove(String id) {
    return items.remove(id) != null;
  }

  /** The next number; as a text if the identifiers so far are texts. */
  private JsonNode nextId() {
    boolean numbers = items.values().stream().allMatch(item -> item.path(idMember).isNumber());
    long next = ++lastNumber;
    return numbers
        ? JsonNodeFactory.instance.numberNode(next)
        : JsonNodeFactory.instance.textNode(Long.toString(next));
  }
}
