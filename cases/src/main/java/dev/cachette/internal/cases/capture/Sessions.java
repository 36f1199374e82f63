// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases.capture;

import dev.cachette.cassette.Exchange;
import dev.cachette.http.Headers;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/** Decides which incoming calls are the steps of one case. Thread-safe. */
public final class Sessions {

  private final Optional<String> name;
  private final Optional<String> cookie;

  /** The first call of each session, by the value of its cookie. */
  private final Map<String, Long> byCookie = new HashMap<>();

  /** The names that callers have given. */
  private final Map<Long, String> names = new LinkedHashMap<>();

  private Optional<Long> first = Optional.empty();

  /**
   * Creates it.
   *
   * @param name the name of the one case of all calls; empty if each is a case of its own
   * @param cookie the name of a cookie: calls with the same value are one case
   */
  public Sessions(Optional<String> name, Optional<String> cookie) {
    this.name = name;
    this.cookie = cookie;
  }

  /**
   * Where a call belongs.
   *
   * @param caseNumber the number of its case: that of the first call
   * @param givenName the name of the case, if it was given
   */
  record Place(long caseNumber, Optional<String> givenName) {}

  /** Notes the name that a caller has given to the case of a call. */
  synchronized void name(long call, String given) {
    names.put(call, given);
  }

  /** Returns where a call belongs that has ended. */
  synchronized Place place(long call, Exchange exchange) {
    if (name.isPresent()) {
      first = first.or(() -> Optional.of(call));
      return new Place(first.orElseThrow(), name);
    }
    List<String> values = cookie.map(it -> values(it, exchange)).orElse(List.of());
    long number =
        values.stream().filter(byCookie::containsKey).findFirst().map(byCookie::get).orElse(call);
    values.forEach(value -> byCookie.put(value, number));
    return new Place(number, Optional.ofNullable(names.get(call)));
  }

  /** Returns the values of a cookie in a request and its response (RFC 6265). */
  private static List<String> values(String cookie, Exchange exchange) {
    Stream<String> sent =
        exchange.request().headers().all("cookie").stream().flatMap(it -> Stream.of(it.split(";")));
    Stream<String> set =
        exchange
            .response()
            .map(it -> it.headers())
            .map(Headers::stream)
            .orElseGet(Stream::of)
            .filter(it -> it.name().equalsIgnoreCase("set-cookie"))
            .map(it -> it.value().split(";")[0]);
    return Stream.concat(sent, set)
        .map(String::strip)
        .filter(it -> it.startsWith(cookie + "="))
        .map(it -> it.substring(cookie.length() + 1))
        .filter(it -> !it.isEmpty())
        .toList();
  }
}
