// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.Header;
import dev.cachette.http.Response;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.uri.Percent;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The secrets that an application gives out in a response, such as the cookie of a session or a
 * token: the case has placeholders for them, and later steps send them.
 */
public final class SecretValues {

  private static final Pattern PLACEHOLDER =
      Pattern.compile("\\{\\{([A-Za-z0-9_-]+)(:url|:form)?}}");

  /** A shorter one could be part of other text. */
  private static final int SHORTEST = 4;

  private final Map<String, String> found = new LinkedHashMap<>();

  private SecretValues() {}

  /** Returns the values of now by the names of their placeholders. */
  public static Map<String, String> of(Response captured, Response now) {
    SecretValues values = new SecretValues();
    for (Header header : captured.headers()) {
      now.headers().all(header.name()).forEach(it -> values.compare(header.value(), it));
    }
    Content expected = Content.of(captured.headers(), captured.body());
    Content actual = Content.of(now.headers(), now.body());
    Optional<JsonNode> one = expected.json();
    Optional<JsonNode> other = actual.json();
    if (one.isPresent() && other.isPresent()) {
      values.compare(one.get(), other.get());
    } else {
      values.compare(expected.text(), actual.text());
    }
    return values.found;
  }

  private void compare(JsonNode captured, JsonNode now) {
    if (captured.isTextual() && now.isTextual()) {
      compare(captured.textValue(), now.textValue());
    } else if (captured.isObject()) {
      captured.properties().forEach(it -> compare(it.getValue(), now.path(it.getKey())));
    } else if (captured.isArray()) {
      for (int at = 0; at < captured.size(); at++) {
        compare(captured.get(at), now.path(at));
      }
    }
  }

  private void compare(String captured, String now) {
    Matcher placeholder = PLACEHOLDER.matcher(captured);
    StringBuilder pattern = new StringBuilder();
    int end = 0;
    List<MatchResult> names = new ArrayList<>();
    while (placeholder.find()) {
      pattern.append(Pattern.quote(captured.substring(end, placeholder.start()))).append("(.+?)");
      names.add(placeholder.toMatchResult());
      end = placeholder.end();
    }
    if (names.isEmpty()) {
      return;
    }
    pattern.append(Pattern.quote(captured.substring(end)));
    Matcher values = Pattern.compile(pattern.toString(), Pattern.DOTALL).matcher(now);
    if (values.matches()) {
      for (int at = 0; at < names.size(); at++) {
        String value = values.group(at + 1);
        boolean isEncoded = names.get(at).group(2) != null;
        keep(names.get(at).group(1), isEncoded ? Percent.decodeForm(value) : value);
      }
    }
  }

  private void keep(String name, String value) {
    if (value.length() >= SHORTEST && !PLACEHOLDER.matcher(value).matches()) {
      found.putIfAbsent(name, value);
    }
  }
}
