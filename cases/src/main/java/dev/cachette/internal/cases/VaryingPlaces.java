// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.body.Ignored;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.xml.XPaths;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/**
 * The places of a message whose values vary by nature, as they are written in the file of a case.
 *
 * @param path a path with <code>{id}</code> for each segment that varies; empty for none
 * @param query names of query parameters
 * @param headers names of headers, in lower case
 * @param json JSONPaths (RFC 9535) in the body
 * @param xpath XPaths in the body
 * @param fields fields of forms, and parts
 * @param wholeBody whether nothing in the body is compared
 */
public record VaryingPlaces(
    Optional<String> path,
    Set<String> query,
    Set<String> headers,
    Set<String> json,
    Set<String> xpath,
    Set<String> fields,
    boolean wholeBody) {

  /** The member of requests and responses that has them. */
  static final String MEMBER = "_varying";

  private static final String BODY = "body";

  /** Nothing varies. */
  public static final VaryingPlaces NONE =
      new VaryingPlaces(Optional.empty(), Set.of(), Set.of(), Set.of(), Set.of(), Set.of(), false);

  /** Sorts and copies them. */
  public VaryingPlaces {
    query = sorted(query);
    headers = sorted(headers.stream().map(it -> it.toLowerCase(Locale.ROOT)).toList());
    json = sorted(json);
    xpath = sorted(xpath);
    fields = sorted(fields);
  }

  private static Set<String> sorted(Collection<String> some) {
    return Collections.unmodifiableSet(new TreeSet<>(some));
  }

  /** Thrown if what is written is not valid; the message begins with the member. */
  static final class Malformed extends Exception {

    private static final long serialVersionUID = 1;

    Malformed(String message) {
      super(message, null, false, false);
    }
  }

  /** Reads those of a request or response. */
  static VaryingPlaces read(JsonNode message) throws Malformed {
    JsonNode written = message.path(MEMBER);
    if (written.isMissingNode()) {
      return NONE;
    }
    if (!written.isObject()) {
      throw new Malformed(MEMBER + " is not an object");
    }
    for (Map.Entry<String, JsonNode> each : written.properties()) {
      if (!List.of("path", "query", "headers", "json", "xpath", "fields", BODY)
          .contains(each.getKey())) {
        throw new Malformed(
            String.format(
                "%s/%s is unknown. Allowed: path, query, headers, json, xpath, fields, body",
                MEMBER, each.getKey()));
      }
    }
    Set<String> json = strings(written, "json", JsonQuery::parse);
    Set<String> xpath = strings(written, "xpath", it -> new XPaths(it, Map.of()));
    return new VaryingPlaces(
        Optional.ofNullable(written.path("path").textValue()),
        strings(written, "query", it -> it),
        strings(written, "headers", it -> it),
        json,
        xpath,
        strings(written, "fields", it -> it),
        written.path(BODY).asBoolean());
  }

  private interface Check {
    Object of(String text);
  }

  private static Set<String> strings(JsonNode written, String member, Check check)
      throws Malformed {
    JsonNode list = written.path(member);
    if (!list.isMissingNode() && !list.isArray()) {
      throw new Malformed(MEMBER + "/" + member + " is not an array of strings");
    }
    Set<String> found = new TreeSet<>();
    for (JsonNode each : list) {
      if (!each.isTextual()) {
        throw new Malformed(MEMBER + "/" + member + " is not an array of strings");
      }
      try {
        check.of(each.textValue());
      } catch (IllegalArgumentException malformed) {
        throw new Malformed(MEMBER + "/" + member + ": " + malformed.getMessage());
      }
      found.add(each.textValue());
    }
    return found;
  }

  /** Adds them to a request or response, if there are any. */
  void addTo(ObjectNode message) {
    ObjectNode written = JsonNodeFactory.instance.objectNode();
    path.ifPresent(it -> written.put("path", it));
    add(written, "query", query);
    add(written, "headers", headers);
    add(written, "json", json);
    add(written, "xpath", xpath);
    add(written, "fields", fields);
    if (wholeBody) {
      written.put(BODY, true);
    }
    if (!written.isEmpty()) {
      message.set(MEMBER, written);
    }
  }

  private static void add(ObjectNode into, String member, Set<String> names) {
    if (!names.isEmpty()) {
      ArrayNode list = into.putArray(member);
      names.forEach(list::add);
    }
  }

  /** Returns both of them. */
  public VaryingPlaces and(VaryingPlaces other) {
    return new VaryingPlaces(
        path.or(other::path),
        both(query, other.query),
        both(headers, other.headers),
        both(json, other.json),
        both(xpath, other.xpath),
        both(fields, other.fields),
        wholeBody || other.wholeBody);
  }

  private static Set<String> both(Set<String> some, Set<String> more) {
    Set<String> all = new TreeSet<>(some);
    all.addAll(more);
    return all;
  }

  /** Returns them with a path. */
  VaryingPlaces withPath(String template) {
    return new VaryingPlaces(Optional.of(template), query, headers, json, xpath, fields, wholeBody);
  }

  /** Returns them with a query parameter. */
  VaryingPlaces withQuery(String name) {
    return and(
        new VaryingPlaces(
            Optional.empty(), Set.of(name), Set.of(), Set.of(), Set.of(), Set.of(), false));
  }

  /** Returns them with a header. */
  VaryingPlaces withHeader(String name) {
    return and(
        new VaryingPlaces(
            Optional.empty(), Set.of(), Set.of(name), Set.of(), Set.of(), Set.of(), false));
  }

  /** Returns them with places in the body. */
  VaryingPlaces with(Ignored places) {
    return and(
        new VaryingPlaces(
            Optional.empty(),
            Set.of(),
            Set.of(),
            Set.copyOf(places.json()),
            Set.copyOf(places.xpath()),
            Set.copyOf(places.fields()),
            false));
  }

  /** Returns them with the whole body. */
  VaryingPlaces withWholeBody() {
    return new VaryingPlaces(path, query, headers, json, xpath, fields, true);
  }

  /**
   * Returns them with a place as a person names it: {@code $.id}, {@code //id}, {@code header
   * location}, {@code query page}, {@code field day}, {@code path /v1/bookings/{id}}, or {@code
   * body}.
   *
   * @throws IllegalArgumentException if it is none of these
   */
  public VaryingPlaces with(String place) {
    String[] words = place.strip().split("\\s+", 2);
    if (place.startsWith("$")) {
      JsonQuery.parse(place.strip());
      return with(new Ignored(List.of(place.strip()), List.of(), List.of()));
    }
    if (words.length == 1 && place.startsWith("/")) {
      new XPaths(place.strip(), Map.of());
      return with(new Ignored(List.of(), List.of(place.strip()), List.of()));
    }
    String name = words.length == 2 ? words[1] : "";
    return switch (words[0]) {
      case "header" -> withHeader(named(place, !name.isEmpty(), name));
      case "query" -> withQuery(named(place, !name.isEmpty(), name));
      case "field" ->
          with(new Ignored(List.of(), List.of(), List.of(named(place, !name.isEmpty(), name))));
      case "path" -> withPath(named(place, name.startsWith("/") && name.contains("{"), name));
      case BODY -> {
        named(place, name.isEmpty(), name);
        yield withWholeBody();
      }
      default -> throw new IllegalArgumentException(noPlace(place));
    };
  }

  private static String named(String place, boolean isValid, String name) {
    if (!isValid) {
      throw new IllegalArgumentException(noPlace(place));
    }
    return name;
  }

  private static String noPlace(String text) {
    return "\""
        + text
        + "\" is not a place. Allowed: a JSONPath ($.id), an XPath (//id), header NAME, query NAME,"
        + " field NAME, path /v1/bookings/{id}, body";
  }

  /** Returns them in words, as {@link #with(String)} takes them. */
  public List<String> shown() {
    List<String> all = new ArrayList<>();
    path.ifPresent(it -> all.add("path " + it));
    query.forEach(it -> all.add("query " + it));
    headers.forEach(it -> all.add("header " + it));
    all.addAll(json);
    all.addAll(xpath);
    fields.forEach(it -> all.add("field " + it));
    if (wholeBody) {
      all.add(BODY);
    }
    return all;
  }

  /** Returns the places in the body. */
  Ignored inBody() {
    return new Ignored(List.copyOf(json), List.copyOf(xpath), List.copyOf(fields));
  }

  /** Returns true if there are none. */
  public boolean isEmpty() {
    return equals(NONE);
  }
}
