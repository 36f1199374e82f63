// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.masking;

import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.secret.Replacement;
import dev.cachette.internal.secret.Secret;
import dev.cachette.internal.secret.SecretFinder;
import dev.cachette.internal.uri.Percent;
import dev.cachette.result.Cause;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Masks the secrets of one request in texts about it, wherever a comparison found them: by a path
 * that does not name them, or within a longer text.
 */
public final class RequestMask {

  /** Shorter values occur by chance; their places mask them. */
  private static final int SHORTEST = 3;

  /** Values from this length on are masked within words, too. */
  private static final int LONG = 8;

  /** Values of letters and digits from this length on are not words. */
  private static final int MIXED = 5;

  private final List<Pattern> secrets = new ArrayList<>();

  private RequestMask(Set<String> values) {
    Set<String> forms = new LinkedHashSet<>();
    for (String value : values) {
      forms.add(value);
      forms.add(value.replace("\\", "\\\\").replace("\"", "\\\"").replace("\n", "\\n"));
      forms.add(value.replace("\n", "\\n"));
      forms.add(value.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;"));
      forms.add(Percent.encodeSegment(value));
      forms.add(Percent.encodeForm(value));
    }
    forms.stream()
        .filter(form -> form.length() >= SHORTEST)
        .sorted(Comparator.comparingInt(form -> -form.length()))
        .forEach(form -> secrets.add(pattern(form)));
  }

  /** Returns the mask for a request. */
  public static RequestMask of(Request request) {
    return of(request, List.of());
  }

  /** Returns the mask for a request and its responses. */
  public static RequestMask of(Request request, List<Response> responses) {
    Set<String> values = new LinkedHashSet<>(Masking.values());
    SecretFinder finder =
        new SecretFinder(
            Masking.policy(),
            new Replacement() {
              @Override
              public String of(Secret secret) {
                values.add(secret.value());
                return Masking.MASK;
              }

              @Override
              public void encoded(String text) {
                values.add(text);
              }
            });
    finder.url(request.uri().toString());
    find(finder, request.headers(), request.body());
    responses.forEach(it -> find(finder, it.headers(), it.body()));
    return new RequestMask(values);
  }

  private static void find(SecretFinder finder, Headers headers, Body body) {
    for (Header header : headers) {
      finder.header(header.name(), header.value());
    }
    if (!body.isEmpty()) {
      finder.body(headers.first("content-type"), Content.of(headers, body).text());
    }
  }

  private static Pattern pattern(String value) {
    String quoted = Pattern.quote(value);
    boolean isWord = value.length() < MIXED || value.chars().noneMatch(Character::isDigit);
    return Pattern.compile(
        value.length() < LONG && isWord ? "(?<![A-Za-z0-9])" + quoted + "(?![A-Za-z0-9])" : quoted);
  }

  /** Returns a text with the secrets masked. */
  public String text(String text) {
    String masked = text;
    for (Pattern secret : secrets) {
      masked = secret.matcher(masked).replaceAll(Matcher.quoteReplacement(Masking.MASK));
    }
    return masked;
  }

  /** Returns checks with the secrets masked in what they expect and find. */
  public List<Check> checks(List<Check> checks) {
    return secrets.isEmpty() ? checks : checks.stream().map(this::check).toList();
  }

  private Check check(Check check) {
    return new Check(
        check.condition(),
        check.holds(),
        check.nearness(),
        text(check.expected()),
        check.differences().stream().map(this::difference).toList());
  }

  private Difference difference(Difference difference) {
    return new Difference(
        difference.at(),
        text(difference.expected()),
        text(difference.actual()),
        difference.kind(),
        difference.cause().map(it -> new Cause(text(it.text()), it.isCertain())));
  }
}
