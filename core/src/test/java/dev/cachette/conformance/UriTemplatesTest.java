// SPDX-License-Identifier: Apache-2.0
package dev.cachette.conformance;

import static org.junit.jupiter.api.Assertions.assertEquals;

import com.damnhandy.uri.template.UriTemplate;
import dev.cachette.Generator;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.match.RequestPattern;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** URLs that another implementation expands by RFC 6570 match, and give the values back. */
class UriTemplatesTest {

  private static final int CASES = 2_000;

  @Test
  void expandedTemplatesMatchWithTheirValues() {
    for (int seed = 0; seed < CASES; seed++) {
      Generator generator = new Generator(seed);
      Map<String, Object> values = new LinkedHashMap<>();
      String template = template(generator, values);

      String url = UriTemplate.fromTemplate(template).expand(values);

      Request request = new Request("GET", Uri.parse(url), Headers.none(), Body.empty());
      assertEquals(
          Optional.of(values),
          RequestPattern.of("GET " + template).match(request),
          "seed " + seed + ": " + template + " and " + url);
    }
  }

  private static String template(Generator generator, Map<String, Object> values) {
    StringBuilder template = new StringBuilder("https://tides.example/v1");
    for (int segment = generator.below(4); segment >= 0; segment--) {
      String name = "v" + segment;
      switch (generator.below(3)) {
        case 0 -> template.append('/').append(generator.word(4));
        case 1 -> {
          template.append("/{").append(name).append('}');
          values.put(name, value(generator));
        }
        default -> {
          template.append("/log-{").append(name).append("}.txt");
          values.put(name, value(generator));
        }
      }
    }
    if (generator.below(3) == 0) {
      template.append("/{+rest}");
      values.put("rest", "a/" + generator.word(3) + "/c");
    }
    return template.toString();
  }

  private static String value(Generator generator) {
    String text = generator.text();
    return text.isEmpty() ? "x" : text;
  }
}
