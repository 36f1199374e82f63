// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.answer.Answers;
import dev.cachette.http.Body;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.engine.StubRule;
import dev.cachette.internal.model.DraftStub;
import dev.cachette.match.Bodies;
import dev.cachette.match.Condition;
import dev.cachette.match.Conditions;
import dev.cachette.match.RequestPattern;
import dev.cachette.match.ValueCondition;
import dev.cachette.match.Values;
import java.math.BigDecimal;
import java.nio.charset.Charset;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;

/**
 * A mistake as it stands in a file: a title, then sections named {@code stub} (a request line and
 * one condition a line), {@code before} (calls made before), {@code call} (request line, headers, a
 * blank line, the body) and {@code says} (what the explanation must say).
 */
record Mistake(String title, List<Section> sections) {

  /** Sends the body in this charset, whatever its type says. */
  private static final String CHARSET = "test-charset: ";

  /** A section: its name, and its lines without their indent. */
  private record Section(String name, int line, List<String> lines) {}

  static Mistake read(String text) {
    List<String> lines = text.lines().toList();
    List<Section> sections = new ArrayList<>();
    for (int at = 1; at < lines.size(); at++) {
      String line = lines.get(at);
      if (!line.isEmpty() && !line.startsWith(" ")) {
        sections.add(new Section(line, at + 1, new ArrayList<>()));
      } else if (!sections.isEmpty()) {
        sections.get(sections.size() - 1).lines.add(line.replaceFirst("^ {2}", ""));
      }
    }
    return new Mistake(lines.get(0), sections);
  }

  Response respond() {
    Desk desk = new Desk();
    List<StubRule> rules = new ArrayList<>();
    for (Section section : sections) {
      switch (section.name) {
        case "stub" -> stub(desk, section, rules);
        case "before" ->
            section.lines.stream()
                .filter(line -> !line.isEmpty())
                .forEach(line -> desk.respond(Samples.request(line)));
        case "call" -> {
          return desk.respond(request(section.lines));
        }
        default -> throw new IllegalStateException("no section: " + section.name);
      }
    }
    throw new IllegalStateException("no call");
  }

  List<String> phrases() {
    return sections.stream()
        .filter(section -> section.name.equals("says"))
        .flatMap(section -> section.lines.stream())
        .filter(line -> !line.isEmpty())
        .toList();
  }

  private static void stub(Desk desk, Section section, List<StubRule> rules) {
    List<String> lines = section.lines.stream().filter(line -> !line.isEmpty()).toList();
    DraftStub draft = desk.draft(RequestPattern.of(lines.get(0)), section.line);
    List<String> later = new ArrayList<>();
    for (String line : lines.subList(1, lines.size())) {
      if (line.matches("(times|after|from|until) .*|unanswered")) {
        later.add(line);
      } else {
        draft.narrow(draft.pattern().where(condition(line)));
      }
    }
    if (later.contains("unanswered")) {
      desk.scopes().begin(draft);
      return;
    }
    StubRule rule = desk.stub(draft, Answers.status(204));
    rules.add(rule);
    for (String line : later) {
      if (line.matches("(from|until) .*")) {
        Instant at = Desk.NOW.plus(Duration.parse(line.split(" ")[1]));
        if (line.startsWith("from")) {
          desk.scopes().change(rule, it -> it.activeFrom(at));
        } else {
          desk.scopes().change(rule, it -> it.activeUntil(at));
        }
        continue;
      }
      int number = Integer.parseInt(line.split(" ")[1]);
      if (line.startsWith("times")) {
        desk.scopes().change(rule, it -> it.times(number));
      } else {
        rule.activeAfter(rules.get(number - 1));
      }
    }
  }

  private static Condition condition(String line) {
    String[] words = line.split(" ", 2);
    String rest = words.length < 2 ? "" : words[1];
    return switch (words[0]) {
      case "sameJson" -> Bodies.sameJson(rest);
      case "sameXml" -> Bodies.sameXml(rest);
      case "sameText" -> Bodies.sameText(unescaped(rest));
      case "part" -> Bodies.part(rest);
      case "soapVersion" -> Bodies.soap().version(rest);
      case "xpath" -> Bodies.xpath(rest.split(" ")[0], value(rest.split(" ", 2)[1]));
      case "textBody" -> Bodies.textBody(value(rest));
      case "partContent" -> Bodies.part(rest.split(" ")[0]).content(rest.split(" ", 2)[1]);
      case "graphqlVariable" -> {
        String[] parts = rest.split(" ");
        yield Bodies.graphql().operation(parts[0]).variable(parts[1], parts[2]);
      }
      case "soap" -> Bodies.soap().action(Values.is(rest));
      case "graphql" -> Bodies.graphql().operation(rest);
      case "satisfies" -> Conditions.requestSatisfies(rest, request -> false);
      case "basic" -> Conditions.basic(rest.split(" ")[0], rest.split(" ")[1]);
      case "bearer" -> Conditions.bearer(value(rest));
      default -> named(words[0], rest);
    };
  }

  private static Condition named(String kind, String rest) {
    String[] words = rest.split(" ", 2);
    ValueCondition value = value(words[1]);
    return switch (kind) {
      case "query" -> Conditions.query(words[0], value);
      case "header" -> Conditions.header(words[0], value);
      case "cookie" -> Conditions.cookie(words[0], value);
      case "form" -> Bodies.formField(words[0], value);
      case "path" -> Conditions.path(words[0], value);
      case "json" -> Bodies.jsonAt(words[0], value);
      default -> throw new IllegalStateException("no condition: " + kind);
    };
  }

  private static ValueCondition value(String text) {
    String[] words = text.split(" ", 2);
    return switch (words[0]) {
      case "is" -> Values.is(words[1]);
      case "true" -> Values.is(true);
      case "list" -> Values.list((Object[]) words[1].split(" "));
      case "contains" -> Values.contains(words[1]);
      case "startsWith" -> Values.startsWith(words[1]);
      case "pattern" -> Values.pattern(words[1]);
      case "present" -> Values.present();
      case "atMost" -> Values.atMost(new BigDecimal(words[1]));
      case "before" -> Values.before(Instant.parse(words[1]));
      default -> Values.is(new BigDecimal(text));
    };
  }

  private static Request request(List<String> lines) {
    int blank = lines.indexOf("");
    String[] headers =
        lines.subList(1, blank).stream()
            .filter(line -> !line.startsWith(CHARSET))
            .toArray(String[]::new);
    String body = String.join("\n", lines.subList(blank + 1, lines.size())).stripTrailing();
    Request request = Samples.request(lines.get(0), unescaped(body), headers);
    return lines.stream()
        .filter(line -> line.startsWith(CHARSET))
        .map(line -> Charset.forName(line.substring(CHARSET.length())))
        .map(
            charset ->
                new Request(
                    request.method(),
                    request.uri(),
                    request.headers(),
                    Body.of(body.getBytes(charset))))
        .findFirst()
        .orElse(request);
  }

  private static String unescaped(String text) {
    return text.replace("\\r", "\r").replace("\\n", "\n");
  }

  @Override
  public String toString() {
    return title;
  }
}
