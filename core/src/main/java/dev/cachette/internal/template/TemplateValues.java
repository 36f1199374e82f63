// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.template;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.Query;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.Received;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.time.temporal.Temporal;
import java.time.temporal.TemporalAmount;
import java.util.Arrays;
import java.util.Optional;
import java.util.regex.Matcher;

/**
 * The values of expressions for one request.
 *
 * @param received the request
 * @param count the number of this call of the stub, from 1
 * @param templateState counters and random numbers
 */
public record TemplateValues(Received received, int count, TemplateState templateState) {

  Optional<String> of(Expression expression) {
    String argument = expression.argument();
    return switch (expression.kind()) {
      case "path" -> Optional.ofNullable(received.variables().get(argument));
      case "query" -> received.query(argument);
      case "header" -> received.header(argument);
      case "cookie" -> cookie(argument);
      case "form" -> Query.read(received.text()).first(argument);
      case "json" -> json(argument);
      case "method" -> Optional.of(received.request().method());
      case "url" -> Optional.of(received.request().uri().toString());
      case "host" -> Optional.of(received.request().uri().host());
      case "body" -> Optional.of(received.text());
      case "count" -> Optional.of(Integer.toString(count));
      case "counter" -> Optional.of(Integer.toString(templateState.count(argument)));
      case "random" -> Optional.of(random(argument));
      case "now" -> Optional.of(DateTimeFormatter.ISO_INSTANT.format(shifted(now(), argument)));
      case "today" -> Optional.of(shifted(today(), argument).toString());
      default -> throw new IllegalStateException("no value for " + expression);
    };
  }

  private Optional<String> json(String path) {
    return MatchInternals.parsed(received).content().json().stream()
        .flatMap(root -> JsonQuery.parse(path).find(root).stream())
        .map(located -> text(located.node()))
        .findFirst();
  }

  private static String text(JsonNode node) {
    return node.isValueNode() ? node.asText() : node.toString();
  }

  private Optional<String> cookie(String name) {
    return received.request().headers().all("cookie").stream()
        .flatMap(header -> Arrays.stream(header.split(";")))
        .map(String::strip)
        .filter(pair -> pair.startsWith(name + "="))
        .map(pair -> pair.substring(name.length() + 1))
        .findFirst();
  }

  private String random(String argument) {
    Matcher range = Expression.RANGE.matcher(argument);
    return range.matches()
        ? Long.toString(
            templateState.between(Long.parseLong(range.group(1)), Long.parseLong(range.group(2))))
        : templateState.uuid().toString();
  }

  private OffsetDateTime now() {
    return templateState.clock().instant().atOffset(ZoneOffset.UTC).truncatedTo(ChronoUnit.MILLIS);
  }

  private LocalDate today() {
    return now().toLocalDate();
  }

  private static Temporal shifted(Temporal start, String shift) {
    if (shift.isEmpty()) {
      return start;
    }
    TemporalAmount amount = Expression.amount(shift, shift.substring(1));
    return shift.charAt(0) == '+' ? start.plus(amount) : start.minus(amount);
  }
}
