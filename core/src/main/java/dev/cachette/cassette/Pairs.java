package dev.cachette.cassette;

import dev.cachette.cassette.CassetteInternals.Pair;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiPredicate;

/** Pairs the exchanges of two recordings. */
final class Pairs {

  private final Fingerprint fingerprint;
  private final List<Exchange> left;

  private Pairs(Matching matching, List<Exchange> after) {
    this.fingerprint = new Fingerprint(matching);
    this.left = new ArrayList<>(after);
  }

  /**
   * Returns the pairs in the order of the older exchanges, then the new ones. Exchanges with the
   * same request are paired first, in order, then those with the same request line.
   */
  static List<Pair> of(List<Exchange> before, List<Exchange> after, Matching matching) {
    Pairs pairs = new Pairs(matching, after);
    List<Optional<Exchange>> partners = new ArrayList<>();
    for (Exchange old : before) {
      partners.add(pairs.take(old, pairs::sameRequest));
    }
    List<Pair> paired = new ArrayList<>();
    for (int at = 0; at < before.size(); at++) {
      Exchange old = before.get(at);
      Optional<Exchange> partner = partners.get(at).or(() -> pairs.take(old, pairs::sameLine));
      paired.add(new Pair(Optional.of(old), partner));
    }
    pairs.left.forEach(now -> paired.add(new Pair(Optional.empty(), Optional.of(now))));
    return paired;
  }

  private Optional<Exchange> take(Exchange old, BiPredicate<Exchange, Exchange> fits) {
    Optional<Exchange> first = left.stream().filter(now -> fits.test(old, now)).findFirst();
    first.ifPresent(left::remove);
    return first;
  }

  private boolean sameRequest(Exchange one, Exchange other) {
    return sameLine(one, other)
        && fingerprint.ofRest(one.request()).equals(fingerprint.ofRest(other.request()));
  }

  private boolean sameLine(Exchange one, Exchange other) {
    return line(one).equals(line(other));
  }

  private String line(Exchange exchange) {
    return fingerprint.ofLine(exchange.request().method(), exchange.request().uri());
  }
}
