// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import dev.cachette.internal.uri.Hosts;
import dev.harrel.jsonschema.Evaluator;
import dev.harrel.jsonschema.EvaluatorFactory;
import dev.harrel.jsonschema.FormatEvaluatorFactory;
import dev.harrel.jsonschema.JsonNode;
import dev.harrel.jsonschema.SchemaParsingContext;
import java.math.BigDecimal;
import java.math.BigInteger;
import java.util.Base64;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.regex.Pattern;

/** The formats of OpenAPI, which JSON Schema treats as annotations: here they are validated. */
public final class Formats implements EvaluatorFactory {

  private static final Pattern IPV4 =
      Pattern.compile("((25[0-5]|2[0-4]\\d|1\\d\\d|[1-9]?\\d)(\\.(?!$)|$)){4}");

  private static final Map<String, Predicate<JsonNode>> OWN =
      Map.of(
          "int32", whole(Integer.SIZE),
          "int64", whole(Long.SIZE),
          "byte", text(Formats::isBase64),
          "email", text(it -> it.matches("[^@\\s]+@[^@\\s]+")),
          "idn-email", text(it -> it.matches("[^@\\s]+@[^@\\s]+")),
          "ipv4", text(it -> IPV4.matcher(it).matches()),
          "ipv6", text(it -> it.indexOf(':') >= 0 && Hosts.isAddress(it)));

  private final EvaluatorFactory standard = new FormatEvaluatorFactory();

  @Override
  public Optional<Evaluator> create(SchemaParsingContext context, String keyword, JsonNode value) {
    if (!keyword.equals("format") || !value.isString()) {
      return Optional.empty();
    }
    Predicate<JsonNode> own = OWN.get(value.asString());
    if (own == null) {
      return standard.create(context, keyword, value);
    }
    String problem = "not a valid " + value.asString();
    return Optional.of(
        (evaluation, node) ->
            own.test(node) ? Evaluator.Result.success() : Evaluator.Result.failure(problem));
  }

  private static Predicate<JsonNode> text(Predicate<String> test) {
    return node -> !node.isString() || test.test(node.asString());
  }

  private static Predicate<JsonNode> whole(int bits) {
    BigDecimal bound = new BigDecimal(BigInteger.TWO.pow(bits - 1));
    return node ->
        !node.isNumber()
            || node.asNumber().compareTo(bound) < 0
                && node.asNumber().compareTo(bound.negate()) >= 0;
  }

  private static boolean isBase64(String text) {
    try {
      Base64.getDecoder().decode(text);
      return true;
    } catch (IllegalArgumentException malformed) {
      return false;
    }
  }
}
