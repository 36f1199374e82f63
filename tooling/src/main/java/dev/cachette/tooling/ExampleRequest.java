// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.uri.Percent;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.StringJoiner;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The one request that a stub is for. */
final class ExampleRequest {

  private static final Pattern METHOD = Pattern.compile("[A-Z]+");
  private static final Pattern VARIABLE = Pattern.compile("\\{([A-Za-z0-9_]+)\\}");

  private final Map<String, String> path = new LinkedHashMap<>();
  private final StringJoiner query = new StringJoiner("&");
  private final StringJoiner form = new StringJoiner("&");
  private final List<String> ignored = new ArrayList<>();
  private Headers headers = Headers.none();
  private Body body = Body.empty();
  private boolean hasForm;

  private ExampleRequest() {}

  /**
   * The request.
   *
   * @param request the request
   * @param ignored conditions that a cassette does not compare
   */
  record Found(Request request, List<String> ignored) {}

  /** Thrown if a stub is for many requests. */
  static final class Many extends Exception {

    private static final long serialVersionUID = 1;

    Many(String why) {
      super(why);
    }
  }

  /**
   * Returns the request.
   *
   * @throws Many if there is not exactly one; the message says why
   */
  static Found of(StubFileContent.Declared stub) throws Many {
    ExampleRequest example = new ExampleRequest();
    for (JsonNode condition : stub.conditions()) {
      for (Map.Entry<String, JsonNode> member : condition.properties()) {
        example.add(member.getKey(), member.getValue());
      }
    }
    return new Found(example.request(stub.line()), List.copyOf(example.ignored));
  }

  private Request request(String line) throws Many {
    String[] parts = line.split(" ", 2);
    if (parts.length < 2 || !METHOD.matcher(parts[0]).matches()) {
      throw new Many("its request line has no method");
    }
    Matcher variable = VARIABLE.matcher(parts[1]);
    String url =
        variable.replaceAll(
            name ->
                Matcher.quoteReplacement(
                    path.containsKey(name.group(1))
                        ? Percent.encodeForm(path.get(name.group(1))).replace("+", "%20")
                        : name.group()));
    if (url.contains("{") || url.contains("*") || !url.contains("://")) {
      throw new Many("its URL matches many");
    }
    if (query.length() > 0) {
      url += (url.contains("?") ? "&" : "?") + query;
    }
    if (hasForm) {
      typed("application/x-www-form-urlencoded");
      body = Body.of(form.toString());
    }
    return new Request(parts[0], Uri.parse(url), headers, body);
  }

  private void add(String key, JsonNode value) throws Many {
    switch (key) {
      case "path" -> each(key, value, path::put);
      case "query" -> each(key, value, (name, it) -> query.add(field(name, it)));
      case "form" -> {
        hasForm = true;
        each(key, value, (name, it) -> form.add(field(name, it)));
      }
      case "headers" -> {
        for (Map.Entry<String, JsonNode> member : value.properties()) {
          ignored.add("the header " + member.getKey());
          if (member.getValue().isValueNode()) {
            headers = headers.with(member.getKey(), member.getValue().asText());
          }
        }
      }
      case "cookies", "basic", "bearer" ->
          ignored.add(key.equals("cookies") ? "cookies" : "credentials");
      case "body" -> body(value);
      default -> throw new Many("its condition " + key + " matches many bodies");
    }
  }

  /** Something with a name and one value. */
  private interface Taking {
    void take(String name, String value);
  }

  private static void each(String key, JsonNode members, Taking taking) throws Many {
    for (Map.Entry<String, JsonNode> member : members.properties()) {
      JsonNode value = member.getValue();
      if (value.isValueNode()) {
        taking.take(member.getKey(), value.asText());
      } else if (value.path("list").isArray()) {
        for (JsonNode one : value.path("list")) {
          if (!one.isValueNode()) {
            throw new Many("its " + key + " " + member.getKey() + " matches many values");
          }
          taking.take(member.getKey(), one.asText());
        }
      } else {
        throw new Many("its " + key + " " + member.getKey() + " matches many values");
      }
    }
  }

  private static String field(String name, String value) {
    return Percent.encodeForm(name) + "=" + Percent.encodeForm(value);
  }

  private void body(JsonNode condition) throws Many {
    if (condition.has("sameJson")) {
      typed("application/json");
      body = Body.of(condition.get("sameJson").toString());
    } else if (condition.has("sameXml")) {
      typed("application/xml");
      body = Body.of(condition.get("sameXml").asText());
    } else if (condition.has("sameText")) {
      body = Body.of(condition.get("sameText").asText());
    } else if (condition.has("sameBytes")) {
      body = Body.of(Base64.getDecoder().decode(condition.get("sameBytes").asText()));
    } else {
      throw new Many("its condition on the body matches many");
    }
    if (condition.has("ignoring") || condition.has("anyOrder")) {
      ignored.add("what its body ignores");
    }
  }

  private void typed(String contentType) {
    if (!headers.has("content-type")) {
      headers = headers.with("content-type", contentType);
    }
  }
}
