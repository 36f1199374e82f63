// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases.run;

import dev.cachette.Cachette;
import dev.cachette.CachetteInternals;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Redaction;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.cases.CallChoice;
import dev.cachette.internal.cases.CallComparison;
import dev.cachette.internal.cases.CallPairs;
import dev.cachette.internal.cases.Case;
import dev.cachette.internal.cases.CaseExchange;
import dev.cachette.internal.cases.CaseHar;
import dev.cachette.internal.cases.OwnOrigin;
import dev.cachette.internal.cases.ResponseComparison;
import dev.cachette.internal.cases.SecretValues;
import dev.cachette.internal.cases.VaryingValues;
import dev.cachette.internal.cases.file.CaseFile;
import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.internal.cassette.RecordedExchanges;
import dev.cachette.internal.cassette.Redactor;
import dev.cachette.internal.engine.RealServiceFailed;
import dev.cachette.internal.engine.ServedServices;
import dev.cachette.replay.CaseFinding;
import dev.cachette.replay.CaseFinding.Kind;
import dev.cachette.replay.CaseResult;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.UnaryOperator;

/** Replays one case: sends its incoming calls, answers the outgoing ones, and compares. */
public final class CaseRun {

  /** How long outgoing calls may come after the response, if none did when captured. */
  private static final long PATIENCE_MILLIS = 300;

  /** How much more, and how many times longer than then, if some did. */
  private static final long MORE_MILLIS = 1_000;

  private static final int LAG_FACTOR = 3;

  private final Cachette net;
  private final CaseFile file;
  private final ReplaySettings settings;
  private Redaction secrets;
  private final OwnOrigin ownOrigin;
  private final CallChoice choice;

  /** The tokens that were signed again, with the names of their placeholders. */
  private final Map<String, String> signed = new HashMap<>();

  private final Substitutions substitutions = new Substitutions();
  private final CookieJar cookies = new CookieJar();
  private final List<CaseFinding> findings = new ArrayList<>();
  private final List<Case.Step> now = new ArrayList<>();

  private CaseRun(Cachette net, CaseFile file, ReplaySettings settings) {
    this.net = net;
    this.file = file;
    this.settings = settings;
    this.secrets = settings.secrets();
    this.ownOrigin = new OwnOrigin(settings.application().origin(), capturedOrigin(file));
    this.choice = new CallChoice(Clock.systemUTC(), ownOrigin, this::isOfBackground);
  }

  private static String capturedOrigin(CaseFile file) {
    return file.content()
        .steps()
        .get(0)
        .incoming()
        .orElseThrow()
        .exchange()
        .request()
        .uri()
        .origin();
  }

  /** Replays a case. */
  public static CaseResult of(Cachette net, CaseFile file, ReplaySettings settings) {
    long before = System.nanoTime();
    CaseRun run = new CaseRun(net, file, settings);
    run.run();
    boolean updated = settings.updates() && !run.findings.isEmpty() && run.update();
    List<String> calls =
        file.content().steps().stream()
            .flatMap(step -> step.incoming().stream())
            .map(it -> CallPairs.line(it.exchange().request()))
            .toList();
    return new CaseResult(
        file.content().name(),
        file.path(),
        file.written().lines().get(0),
        calls,
        run.findings,
        Duration.ofNanos(System.nanoTime() - before),
        updated);
  }

  private boolean isOfBackground(Request request) {
    Instant at = Instant.now();
    return settings.background().stream()
        .flatMap(it -> it.content().exchanges().stream())
        .anyMatch(it -> CallComparison.isSameResource(it, request, at));
  }

  private void run() {
    List<AssertionError> left = new ArrayList<>();
    try (Cachette.Scope scope = net.scope()) {
      settings.background().forEach(this::answerBackground);
      boolean goesOn = true;
      for (int step = 0; goesOn && step < file.content().steps().size(); step++) {
        // Of its own, so that it is answered by its own exchanges before those of others.
        Cachette.Scope ofStep = net.scope();
        try {
          goesOn = run(step);
        } finally {
          CachetteInternals.end(ofStep).ifPresent(left::add);
        }
      }
    }
    // Those that were noticed here are findings; others are not HTTP, or a misuse.
    if (!left.isEmpty() && findings.isEmpty()) {
      throw left.get(0);
    }
  }

  private void answerBackground(CaseFile background) {
    CaseAnswers.putBackground(net, background, secrets, settings.destinations());
  }

  /** Replays a step; returns false if the next ones make no sense. */
  private boolean run(int number) {
    RecordedExchanges exchanges = substitutions.in(file.exchanges());
    CaseHar.Written written = CaseHar.read(file.content().name(), exchanges);
    Case.Step step = written.content().steps().get(number);
    List<CaseExchange> all = written.content().exchanges();
    Case.Step compared = withoutReplaced(step);
    choice.begin(all, indexes(all, compared.outgoing()));
    LoadedCassette ofCalls =
        CaseAnswers.put(
            net, file.content().name(), exchanges, choice, secrets, settings.destinations());
    CaseExchange expected = step.incoming().orElseThrow();
    try {
      Request request = request(expected.exchange());
      ofCalls.learnSigned(signed);
      Exchange raw = ownOrigin.in(CachetteInternals.call(net, request));
      raw.response().ifPresent(cookies::keep);
      keepSecrets(expected, raw);
      awaitOutgoing(compared);
      signed.putAll(ofCalls.signed());
      Exchange actual = comparable(expected, raw);
      findings.addAll(ResponseComparison.findings(line(number), expected, actual));
      List<CallChoice.Asked> asked = choice.asked();
      CallPairs pairs = CallPairs.of(compared.outgoing(), asked);
      findings.addAll(pairs.findings());
      VaryingValues.forEach(expected, actual, substitutions::add);
      now.add(stepNow(step, compared, actual, pairs, asked));
      return true;
    } catch (RealServiceFailed failed) {
      findings.add(
          new CaseFinding(
              Kind.NO_RESPONSE,
              line(number),
              "",
              expected.exchange().outcome(),
              "no response from " + settings.application().origin(),
              String.valueOf(failed.getMessage())));
      return false;
    }
  }

  /** Returns a step without the calls that a stand-in answers, which clients need not repeat. */
  private Case.Step withoutReplaced(Case.Step step) {
    return new Case.Step(
        step.incoming(),
        step.outgoing().stream()
            .filter(it -> !services().replaceRecorded(it.exchange().request()))
            .toList());
  }

  private ServedServices services() {
    return CachetteInternals.services(net);
  }

  /** Returns the request line of a step as it is in the file. */
  private String line(int number) {
    return CallPairs.line(
        file.content().steps().get(number).incoming().orElseThrow().exchange().request());
  }

  /** Finds exchanges by identity: equal ones may be there twice. */
  private static Set<Integer> indexes(List<CaseExchange> all, List<CaseExchange> some) {
    Set<Integer> found = new TreeSet<>();
    for (int at = 0; at < all.size(); at++) {
      CaseExchange one = all.get(at);
      if (some.stream().anyMatch(it -> it == one)) {
        found.add(at);
      }
    }
    return found;
  }

  private Request request(Exchange exchange) {
    Request captured = exchange.request();
    Uri uri = captured.uri();
    Uri target = settings.application();
    Request request =
        new Request(
            captured.method(),
            new Uri(target.scheme(), target.host(), target.port(), uri.path(), uri.rawQuery()),
            captured.headers(),
            captured.body());
    Redactor redactor = new Redactor(secrets);
    Request filled = redactor.fill(request, exchange.tokens(), services()::sign);
    signed.putAll(redactor.signed());
    request = withValidUrl(cookies.in(filled));
    for (UnaryOperator<Request> change : settings.changes()) {
      request = change.apply(request);
    }
    return request;
  }

  /** A placeholder without a value is sent as it is, but its braces are not valid in a URL. */
  private static Request withValidUrl(Request request) {
    Uri uri = Uri.parse(request.uri().toJavaUri().toASCIIString());
    return new Request(request.method(), uri, request.headers(), request.body());
  }

  /** Returns an exchange as it would have been captured: redacted. */
  private Exchange comparable(CaseExchange expected, Exchange raw) {
    Redactor redactor = new Redactor(secrets);
    redactor.learnSigned(signed);
    return redactor.redact(1, raw.with(expected.exchange().request()));
  }

  /** The later steps send what the application has given out now. */
  private void keepSecrets(CaseExchange expected, Exchange raw) {
    Map<String, String> given =
        SecretValues.of(expected.exchange().response().orElseThrow(), raw.response().orElseThrow());
    given.forEach((name, value) -> secrets = secrets.secret(name, value));
  }

  private void awaitOutgoing(Case.Step step) {
    Exchange incoming = step.incoming().orElseThrow().exchange();
    Instant end = incoming.started().plus(incoming.time());
    long lag =
        step.outgoing().stream()
            .mapToLong(it -> Duration.between(end, it.exchange().started()).toMillis())
            .max()
            .orElse(0);
    try {
      choice.awaitAll(lag <= 0 ? PATIENCE_MILLIS : MORE_MILLIS + LAG_FACTOR * lag);
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
    }
  }

  /** Returns a step as it is now; an outgoing call that is new has no answer, so it is left out. */
  private static Case.Step stepNow(
      Case.Step step,
      Case.Step compared,
      Exchange actual,
      CallPairs pairs,
      List<CallChoice.Asked> asked) {
    CaseExchange expected = step.incoming().orElseThrow();
    List<CaseExchange> outgoing = new ArrayList<>(step.outgoing());
    outgoing.removeAll(compared.outgoing());
    pairs.pairs().entrySet().stream()
        .sorted(Map.Entry.comparingByValue())
        .forEach(
            pair -> {
              CaseExchange captured = compared.outgoing().get(pair.getKey());
              outgoing.add(
                  new CaseExchange(
                      captured.exchange().with(asked.get(pair.getValue()).request()),
                      captured.request(),
                      captured.response()));
            });
    return new Case.Step(
        Optional.of(new CaseExchange(actual, expected.request(), expected.response())), outgoing);
  }

  /** Updates the file, unless something in it cannot be known. */
  private boolean update() {
    boolean impossible =
        findings.stream()
            .anyMatch(it -> it.kind() == Kind.CALL_NEW || it.kind() == Kind.NO_RESPONSE);
    if (!impossible) {
      CaseFile.replace(file.path(), Optional.of(file), new Case(file.content().name(), now));
    }
    return !impossible;
  }
}
