package dev.cachette.internal.stub;

import dev.cachette.internal.cassette.InPlay;
import dev.cachette.internal.explain.UnexpectedCalls;
import dev.cachette.internal.explain.UnusedStubs;
import dev.cachette.internal.openapi.Described;
import dev.cachette.internal.render.Tallies;
import dev.cachette.match.CoverIndex;
import dev.cachette.match.PatternIndex;
import dev.cachette.match.Received;
import dev.cachette.match.RequestPattern;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** The stubs of one scope, and what happened in it. Guarded by the lock of {@link Scopes}. */
public final class StubScope {

  /** So many kinds of unexpected calls are told apart, and so many failures kept. */
  private static final int MOST_KINDS = 1_000;

  /** In the order they were declared. */
  private final List<StubRule> rules = new ArrayList<>();

  private final Map<StubRule, Integer> declared = new HashMap<>();

  /** The one that wins stands first: the more specific, then the one declared later. */
  private final Comparator<StubRule> winnerFirst =
      Comparator.comparing(StubRule::pattern, RequestPattern.mostSpecificFirst())
          .thenComparing(declared::get, Comparator.reverseOrder());

  private PatternIndex<StubRule> index = new PatternIndex<>(winnerFirst);

  private int declaredSoFar;
  private List<StubRule> early = List.of();
  private final List<DraftStub> drafts = new ArrayList<>();
  private final Map<String, UnexpectedCalls.Entry> unexpected = new LinkedHashMap<>();
  private final List<InPlay> cassettes = new ArrayList<>();
  private final List<LetThrough> through = new ArrayList<>();
  private final List<Described> described = new ArrayList<>();
  private final List<Throwable> failures = new ArrayList<>();
  private final CallLog log;
  private final Tallies tallies;
  private final long seed;

  StubScope(ScopeSettings settings) {
    this.seed = settings.seed();
    this.log = new CallLog(settings.maxCalls(), settings.maxBodies());
    this.tallies = new Tallies(settings.clock(), settings.seed());
  }

  void begin(DraftStub draft) {
    drafts.add(draft);
  }

  void finish(DraftStub draft, StubRule rule) {
    drafts.remove(draft);
    add(rule);
    if (rule.hasEarlyTrouble()) {
      sortEarly();
    }
  }

  private void add(StubRule rule) {
    declared.put(rule, declaredSoFar++);
    rules.add(rule);
    index.add(rule.pattern(), rule);
  }

  /** Puts stubs in the place of others, as the ones declared last. */
  void replace(Set<StubRule> old, List<StubRule> fresh) {
    if (rules.removeIf(old::contains)) {
      declared.keySet().removeAll(old);
      index = new PatternIndex<>(winnerFirst);
      rules.forEach(rule -> index.add(rule.pattern(), rule));
    }
    fresh.forEach(this::add);
    sortEarly();
  }

  /** The stubs with a trouble that comes before there is a request, the one that wins first. */
  List<StubRule> early() {
    return early;
  }

  /** To be called when one of the stubs was changed. */
  void sortEarly() {
    early = rules.stream().filter(StubRule::hasEarlyTrouble).sorted(winnerFirst).toList();
  }

  void letThrough(LetThrough what) {
    through.add(what);
  }

  List<LetThrough> through() {
    return through;
  }

  void put(InPlay cassette) {
    cassettes.add(cassette);
  }

  /** The cassettes in play, in the order in which they were put in. */
  public List<InPlay> cassettes() {
    return cassettes;
  }

  void describe(Described service) {
    described.add(0, service);
  }

  /** The services that are described, the last one first. */
  List<Described> described() {
    return described;
  }

  boolean holds(DraftStub draft) {
    return drafts.contains(draft);
  }

  /** The stubs that a request may fit, the one that wins first. */
  List<StubRule> candidates(Received received) {
    return index.candidates(received);
  }

  CallLog log() {
    return log;
  }

  Tallies tallies() {
    return tallies;
  }

  /** Notes an unexpected call; answers whether it is the first of its kind. */
  boolean noteUnexpected(String summary, String explanation) {
    boolean full = unexpected.size() >= MOST_KINDS && !unexpected.containsKey(summary);
    String kind = full ? "others" : summary;
    UnexpectedCalls.Entry noted =
        unexpected.merge(
            kind,
            new UnexpectedCalls.Entry(kind, explanation, 1),
            (old, unused) -> new UnexpectedCalls.Entry(kind, old.explanation(), old.times() + 1));
    return noted.times() == 1;
  }

  void noteFailure(Throwable failure) {
    // All of them are told at the end of a test; a server that runs for days must not keep them.
    if (failures.size() < MOST_KINDS) {
      failures.add(failure);
    }
  }

  List<StubRule> rules() {
    return rules;
  }

  List<DraftStub> drafts() {
    return drafts;
  }

  void startAgain() {
    rules.forEach(rule -> rule.startAgain(seed));
    cassettes.forEach(InPlay::startAgain);
  }

  ScopeReport report() {
    return new ScopeReport(
        List.copyOf(unexpected.values()),
        drafts,
        failures,
        unused(),
        rules.stream().flatMap(rule -> rule.notes().stream()).toList(),
        cassettes);
  }

  /** Who wins against a stub costs a look at all of them, so it is asked only where it is told. */
  private List<UnusedStubs.Entry> unused() {
    List<UnusedStubs.Entry> entries = new ArrayList<>();
    List<StubRule> unused = rules.stream().filter(StubRule::isUnused).toList();
    Map<StubRule, StubRule> winners =
        winnersOver(unused.subList(0, Math.min(UnusedStubs.LISTED, unused.size())));
    for (StubRule rule : unused) {
      entries.add(
          new UnusedStubs.Entry(
              rule.reference(), Optional.ofNullable(winners.get(rule)).map(StubRule::reference)));
    }
    return entries;
  }

  /**
   * Those of these stubs that can never answer, each with the one that always answers in its place.
   */
  Map<StubRule, StubRule> winnersOver(List<StubRule> wanted) {
    Map<StubRule, StubRule> winners = new LinkedHashMap<>();
    if (wanted.isEmpty()) {
      return winners;
    }
    CoverIndex<StubRule> always = new CoverIndex<>();
    rules.stream()
        .filter(StubRule::isUnconditional)
        .forEach(rule -> always.add(rule.pattern(), rule));
    for (StubRule rule : wanted) {
      always.covering(rule.pattern()).stream()
          .filter(other -> declared.containsKey(rule) && winnerFirst.compare(other, rule) < 0)
          .findFirst()
          .ifPresent(winner -> winners.put(rule, winner));
    }
    return winners;
  }
}
