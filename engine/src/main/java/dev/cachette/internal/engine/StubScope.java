// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.calls.Call;
import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.internal.explain.UnexpectedCallsFailure;
import dev.cachette.internal.explain.UnusedStubsReport;
import dev.cachette.internal.index.CoverIndex;
import dev.cachette.internal.index.PatternIndex;
import dev.cachette.internal.model.DraftStub;
import dev.cachette.internal.model.Place;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.internal.openapi.Described;
import dev.cachette.internal.template.TemplateState;
import dev.cachette.match.MatchInternals;
import dev.cachette.match.Received;
import dev.cachette.result.StubReference;
import dev.cachette.result.StubStatus;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.stream.Stream;

/** The stubs of one scope, and its events. Guarded by the lock of {@link Scopes}. */
public final class StubScope {

  /** The maximum number of different unexpected calls, and of failures, that are kept. */
  private static final int MOST_KINDS = 1_000;

  /** Matching calls with unused stubs again must not cost a suite with many stubs its speed. */
  private static final int MOST_COMPARISONS = 20_000;

  /** It is found out for so many unused stubs whether they are unreachable. */
  private static final int MOST_COVERED = 100;

  /** In order of declaration. */
  private final List<StubRule> rules = new ArrayList<>();

  private final Map<StubRule, Integer> declared = new HashMap<>();

  /** In order of precedence: overriding first, then more specific, then declared later. */
  private final Comparator<StubRule> winnerFirst =
      Comparator.comparing(StubScope::isOverriding, Comparator.reverseOrder())
          .thenComparing(StubRule::pattern, MatchInternals.mostSpecificFirst())
          .thenComparing(declared::get, Comparator.reverseOrder());

  private PatternIndex<StubRule> index = new PatternIndex<>(winnerFirst);

  private int declaredSoFar;
  private List<StubRule> early = List.of();
  private final List<DraftStub> drafts = new ArrayList<>();
  private final Map<String, UnexpectedCallsFailure.Entry> unexpected = new LinkedHashMap<>();
  private final Map<String, Unexplained> unexplained = new HashMap<>();
  private final List<LoadedCassette> cassettes = new ArrayList<>();
  private final List<LetThrough> through = new ArrayList<>();
  private final List<Described> described = new ArrayList<>();
  private volatile List<ServedService> services = List.of();
  private final List<Throwable> failures = new ArrayList<>();
  private final Set<String> refusals = new LinkedHashSet<>();
  private final CallLog log;
  private final TemplateState templateState;

  /** The stub files that let pages of other origins call. */
  private Set<Object> crossOrigin = Set.of();

  private final Predicate<Place> own;
  private final TestId test;

  /** Why its test has failed. */
  private Optional<String> failed = Optional.empty();

  /** Sets whether a stub file lets pages of other origins call. */
  public synchronized void allowCrossOrigin(Object file, boolean isAllowed) {
    Set<Object> changed = new HashSet<>(crossOrigin);
    boolean different = isAllowed ? changed.add(file) : changed.remove(file);
    if (different) {
      crossOrigin = Set.copyOf(changed);
    }
  }

  synchronized boolean allowsCrossOrigin() {
    return !crossOrigin.isEmpty();
  }

  /**
   * Creates an empty scope.
   *
   * @param own whether unused stubs declared at a place are reported with this scope; others are
   *     reported at the end of all scopes, unless a stub of the same place was used in another one
   * @param test what it is for
   */
  StubScope(ScopeSettings settings, Predicate<Place> own, TestId test) {
    this.test = test;
    this.own = own;
    this.log = new CallLog(settings.maxCalls(), settings.maxBodies());
    this.templateState = new TemplateState(settings.clock(), settings.seed());
  }

  /**
   * An unexpected call.
   *
   * @param declared the number of stubs that were declared before it
   */
  private record Unexplained(Received received, int declared) {}

  /** Returns an entry that names a stub which was declared too late. */
  private UnexpectedCallsFailure.Entry withLaterStub(UnexpectedCallsFailure.Entry entry) {
    Unexplained call = unexplained.get(entry.summary());
    if (call == null) {
      return entry;
    }
    return rules.stream()
        .filter(rule -> declared.get(rule) >= call.declared)
        .filter(rule -> MatchInternals.match(rule.pattern(), call.received).isPresent())
        .findFirst()
        .map(
            rule ->
                new UnexpectedCallsFailure.Entry(
                    entry.summary(),
                    entry
                        .explanation()
                        .replaceFirst(
                            "\n\n",
                            Matcher.quoteReplacement(
                                "\n\nThe stub "
                                    + rule.reference()
                                    + " matches it, but was declared after the call. Fix: declare"
                                    + " it before.\n\n")),
                    entry.times()))
        .orElse(entry);
  }

  void begin(DraftStub draft) {
    drafts.add(draft);
  }

  void finish(DraftStub draft, StubRule rule) {
    drafts.remove(draft);
    add(rule);
    if (rule.hasEarlyFault()) {
      sortEarly();
    }
  }

  private static boolean isOverriding(StubRule rule) {
    return rule.spec().has(StubSpec.Trait.OVERRIDING);
  }

  private void add(StubRule rule) {
    declared.put(rule, declaredSoFar++);
    rules.add(rule);
    index.add(rule.pattern(), rule);
  }

  /** Replaces stubs; the new ones are declared last. */
  void replace(Set<StubRule> old, List<StubRule> fresh) {
    if (rules.removeIf(old::contains)) {
      declared.keySet().removeAll(old);
      index = new PatternIndex<>(winnerFirst);
      rules.forEach(rule -> index.add(rule.pattern(), rule));
    }
    fresh.forEach(this::add);
    sortEarly();
  }

  /** Returns the stubs with a fault before the request, in order of precedence. */
  List<StubRule> early() {
    return early;
  }

  /** Must be called after one of the stubs was changed. */
  void sortEarly() {
    early = rules.stream().filter(StubRule::hasEarlyFault).sorted(winnerFirst).toList();
  }

  void letThrough(LetThrough what) {
    through.add(what);
  }

  List<LetThrough> through() {
    return through;
  }

  void put(LoadedCassette cassette) {
    cassettes.add(cassette);
  }

  /** Returns the active cassettes, in order of activation. */
  public List<LoadedCassette> cassettes() {
    return cassettes;
  }

  void describe(Described service) {
    described.add(0, service);
  }

  /** Returns the services with an API description, last declared first. */
  List<Described> described() {
    return described;
  }

  void serve(ServedService service) {
    services = Stream.concat(Stream.of(service), services.stream()).toList();
  }

  /** Returns the services, last declared first; needs no lock. */
  List<ServedService> services() {
    return services;
  }

  boolean holds(DraftStub draft) {
    return drafts.contains(draft);
  }

  /** Returns the stubs that may match a request, in order of precedence. */
  List<StubRule> candidates(Received received) {
    return index.candidates(MatchInternals.parsed(received));
  }

  CallLog log() {
    return log;
  }

  TemplateState templateState() {
    return templateState;
  }

  /** Records an unexpected call; returns true if it is the first of its kind. */
  boolean noteUnexpected(String summary, String explanation, Optional<Received> call) {
    boolean full = unexpected.size() >= MOST_KINDS && !unexpected.containsKey(summary);
    String kind = full ? "others" : summary;
    UnexpectedCallsFailure.Entry noted =
        unexpected.merge(
            kind,
            new UnexpectedCallsFailure.Entry(kind, explanation, 1),
            (old, unused) ->
                new UnexpectedCallsFailure.Entry(kind, old.explanation(), old.times() + 1));
    if (noted.times() == 1) {
      call.ifPresent(received -> unexplained.put(kind, new Unexplained(received, declaredSoFar)));
    }
    return noted.times() == 1;
  }

  /** Notes a failure of its test. */
  public void noteFailure(Throwable failure) {
    // A test reports all of them at its end; a server that runs for days must not keep them.
    if (failures.size() < MOST_KINDS) {
      failures.add(failure);
    }
  }

  /** Adds a note for its test, if that fails. */
  void note(String text) {
    if (refusals.size() < MOST_KINDS) {
      refusals.add(text);
    }
  }

  /** Returns the notes for its test, if that fails. */
  List<String> notes() {
    return Stream.concat(rules.stream().flatMap(rule -> rule.notes().stream()), refusals.stream())
        .toList();
  }

  Stream<StubStatus> statuses(Instant now) {
    List<StubRule> unused = unusedRules();
    Map<StubRule, StubRule> winners =
        winnersOver(unused.subList(0, Math.min(MOST_COVERED, unused.size())));
    return rules.stream()
        .filter(rule -> !rule.spec().has(StubSpec.Trait.UNLISTED))
        .map(
            rule ->
                rule.status(
                    test.name(),
                    now,
                    Optional.ofNullable(winners.get(rule)).map(StubRule::reference)));
  }

  /** Returns what was in it, at its end. */
  EndedScope end(ScopeReport report, Instant now, List<StubRule> outer) {
    return new EndedScope(
        test,
        failed,
        report,
        statuses(now).toList(),
        List.copyOf(described),
        log.entries(),
        Stream.concat(rules().stream(), outer.stream()).map(StubRule::spec).toList());
  }

  List<StubRule> rules() {
    return rules;
  }

  List<DraftStub> drafts() {
    return drafts;
  }

  void startAgain() {
    rules.forEach(StubRule::startAgain);
    cassettes.forEach(LoadedCassette::startAgain);
    services.forEach(ServedService::startAgain);
    refusals.clear();
  }

  /** Marks its test as failed: misuse is not reported on top of that. */
  void markFailed(String why) {
    failed = Optional.of(why);
  }

  /** Returns the test that it is for. */
  public TestId test() {
    return test;
  }

  Predicate<Place> own() {
    return own;
  }

  List<StubRule> unusedRules() {
    return rules.stream().filter(StubRule::isUnused).toList();
  }

  ScopeReport report(UnusedLater later, List<Call> calls) {
    return new ScopeReport(
        unexpected.values().stream().map(this::withLaterStub).toList(),
        failed.isPresent()
            ? List.of()
            : drafts.stream().filter(draft -> !draft.isRefused()).toList(),
        failures,
        failed.isPresent() ? List.of() : unused(later, calls),
        notes(),
        cassettes);
  }

  /** Finding what covers a stub is expensive, so it is done for reports only. */
  private List<UnusedStubsReport.Entry> unused(UnusedLater later, List<Call> calls) {
    List<UnusedStubsReport.Entry> entries = new ArrayList<>();
    rules.stream().filter(rule -> !rule.isUnused()).forEach(later::noteUsed);
    List<StubRule> unused = unusedRules();
    noteWinners(unused, calls);
    Map<StubRule, StubRule> winners =
        winnersOver(unused.subList(0, Math.min(UnusedStubsReport.LISTED, unused.size())));
    for (StubRule rule : unused) {
      UnusedStubsReport.Entry entry =
          new UnusedStubsReport.Entry(
              rule.reference(),
              Optional.ofNullable(winners.get(rule)).map(StubRule::reference),
              rule.beaten(),
              rule.beatenBy());
      if (rule.place().filter(own.negate()).isPresent()) {
        later.add(entry);
      } else {
        entries.add(entry);
      }
    }
    return entries;
  }

  /** Notes, for stubs without a call, which other stub answered the calls that they match. */
  void noteWinners(List<StubRule> unused, List<Call> calls) {
    if ((long) unused.size() * calls.size() > MOST_COMPARISONS) {
      return;
    }
    for (Call call : calls) {
      Optional<StubReference> winner = call.stub();
      if (winner.isEmpty()) {
        continue;
      }
      Received received = MatchInternals.received(call.request());
      for (StubRule rule : unused) {
        if (matches(rule, received)) {
          rule.noteBeaten(winner.get());
        }
      }
    }
  }

  private static boolean matches(StubRule rule, Received received) {
    try {
      return MatchInternals.match(rule.pattern(), received).isPresent();
    } catch (RuntimeException thrown) {
      // A predicate of the user's; it has failed the test already.
      return false;
    }
  }

  /** Returns the unreachable ones of these stubs, each with the one that always answers instead. */
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
