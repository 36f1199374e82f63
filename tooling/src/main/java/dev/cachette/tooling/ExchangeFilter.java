// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.cassette.Exchange;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.match.HostPattern;
import java.util.Locale;
import java.util.OptionalInt;
import java.util.function.IntPredicate;
import java.util.function.Predicate;

/** Chooses exchanges of a cassette. Immutable; each condition returns a copy. */
public final class ExchangeFilter {

  private final Predicate<Exchange> conditions;

  private ExchangeFilter(Predicate<Exchange> conditions) {
    this.conditions = conditions;
  }

  /** Returns a filter that chooses all. */
  public static ExchangeFilter all() {
    return new ExchangeFilter(each -> true);
  }

  /**
   * Chooses exchanges of a host.
   *
   * @param pattern a host, or {@code *.example} for all subdomains
   * @throws IllegalArgumentException if it is malformed
   */
  public ExchangeFilter host(String pattern) {
    HostPattern hosts = HostPattern.of(pattern);
    return with(
        each ->
            hosts.isFor(each.request().uri().host(), OptionalInt.of(each.request().uri().port())));
  }

  /** Chooses exchanges with a method, ignoring case. */
  public ExchangeFilter method(String method) {
    return with(each -> each.request().method().equalsIgnoreCase(method));
  }

  /** Chooses exchanges with one of these status codes. */
  public ExchangeFilter status(IntPredicate status) {
    return with(each -> each.response().filter(it -> status.test(it.status())).isPresent());
  }

  /** Chooses exchanges with a text in URL, headers or bodies, ignoring case. */
  public ExchangeFilter text(String text) {
    String wanted = text.toLowerCase(Locale.ROOT);
    return with(each -> searched(each).toLowerCase(Locale.ROOT).contains(wanted));
  }

  private static String searched(Exchange each) {
    String response =
        each.response().map(it -> Content.of(it.headers(), it.body()).text()).orElse("");
    String request = Content.of(each.request().headers(), each.request().body()).text();
    return ExchangeText.of(each) + request + response;
  }

  private ExchangeFilter with(Predicate<Exchange> condition) {
    return new ExchangeFilter(conditions.and(condition));
  }

  /** Returns true if the exchange is chosen. */
  public boolean chooses(Exchange exchange) {
    return conditions.test(exchange);
  }
}
