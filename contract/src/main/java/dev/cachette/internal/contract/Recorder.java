// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import dev.cachette.Cachette;
import dev.cachette.RunObserver;
import dev.cachette.calls.Call;
import dev.cachette.internal.engine.EndedScope;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.internal.text.Failed;
import dev.cachette.match.MatchInternals;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Records what passing tests rely on, and writes it when the session ends. Thread-safe. */
public final class Recorder implements RunObserver {

  /** The place of a session that has no name. */
  private static final Pattern PLACE = Pattern.compile("(?:opened at )?(.*)\\.(?:java|kt):\\d+");

  private static final int SERVER_ERROR = 500;
  private static final int TOO_MANY_REQUESTS = 429;

  private final Contract head;
  private final Path folder;
  private final String session;
  private final List<Passed> passed = new ArrayList<>();

  /** A test that passed, kept until the session ends. */
  private record Passed(String test, List<Call> calls, List<StubSpec> stubs) {}

  /**
   * A recorder.
   *
   * @param head the contract without clauses
   * @param folder the folder of the contract file
   * @param session the name of the test class
   */
  public Recorder(Contract head, Path folder, String session) {
    this.head = head;
    this.folder = folder;
    this.session = session;
  }

  @Override
  public synchronized void ended(EndedScope scope, Optional<String> failure) {
    if (failure.isEmpty()) {
      List<Call> calls = scope.log().calls().stream().filter(this::isOfContract).toList();
      if (!calls.isEmpty()) {
        passed.add(new Passed(shortName(scope.test().name()), calls, scope.inForce()));
      }
    }
  }

  /** Returns the name of a test without package and line, which change without the test. */
  private String shortName(String test) {
    String name = test.equals(session) ? test.substring(test.lastIndexOf('.') + 1) : test;
    Matcher place = PLACE.matcher(test);
    return place.matches() ? place.group(1) : name;
  }

  private boolean isOfContract(Call call) {
    return call.stub().isPresent() && call.request().uri().origin().equals(head.origin());
  }

  /** Asked when the session has ended: a test can end a moment before its last answer has. */
  private static boolean isAnswered(Call call) {
    return call.isDelivered() && call.fault().isEmpty() && call.failure().isEmpty();
  }

  @Override
  public synchronized void closed(Cachette net) {
    Set<String> problems = new LinkedHashSet<>();
    Unplaced unplaced = new Unplaced();
    List<Observation> observations = new ArrayList<>();
    for (Passed test : passed) {
      observations.addAll(observations(test, unplaced, problems));
    }
    problems.addAll(unplaced.everywhere());
    if (!problems.isEmpty()) {
      throw new IllegalArgumentException(head + ": " + String.join("\n", problems));
    }
    List<String> contradictions =
        new ContractParts(folder, head)
            .write(PLACE.matcher(session).replaceFirst("$1"), observations);
    if (!contradictions.isEmpty()) {
      throw Failed.of(
          String.format(
              "Tests contradict each other in %s, which is not written:%n%n%s%n%nFix: correct the"
                  + " stub that differs from the provider; or, if both are right, say in which"
                  + " states: clause(stub).given(\"...\").%nIf one of these tests is gone, delete"
                  + " %s, which still has it.",
              head, String.join("\n\n", contradictions), folder));
    }
  }

  private List<Observation> observations(Passed test, Unplaced unplaced, Set<String> problems) {
    List<Observation> observations = new ArrayList<>();
    for (Answered each : lastAnswers(test)) {
      StubSpec stub = each.stub;
      if (isPromise(each.call, stub)) {
        try {
          observations.add(
              Observing.of(
                  each.call,
                  stub,
                  test.test,
                  (place, why) -> unplaced.note(stub.reference(), place, why)));
        } catch (IllegalArgumentException wrong) {
          problems.add("the stub " + stub.reference() + ": " + wrong.getMessage());
        }
      }
    }
    return observations;
  }

  private record Answered(Call call, StubSpec stub) {}

  /** Of the answers to one request of one stub in turn, the last one is that of the provider. */
  private static Collection<Answered> lastAnswers(Passed test) {
    Map<List<Object>, Answered> last = new LinkedHashMap<>();
    for (Call call : test.calls.stream().filter(Recorder::isAnswered).toList()) {
      stub(call, test.stubs)
          .ifPresent(
              it ->
                  last.put(
                      List.of(
                          it.reference(),
                          call.method(),
                          call.request().uri().toString(),
                          call.request().body()),
                      new Answered(call, it)));
    }
    return last.values();
  }

  private static Optional<StubSpec> stub(Call call, List<StubSpec> stubs) {
    return stubs.stream()
        .filter(it -> call.stub().filter(it.reference()::equals).isPresent())
        .filter(
            it ->
                MatchInternals.match(it.pattern(), MatchInternals.received(call.request()))
                    .isPresent())
        .findFirst();
  }

  /** A failure of the provider is none, unless there is a state that makes it fail. */
  private static boolean isPromise(Call call, StubSpec stub) {
    int status = call.response().status();
    boolean isFailure = status >= SERVER_ERROR || status == TOO_MANY_REQUESTS;
    return !stub.has(StubSpec.Trait.UNCHECKED)
        && (!isFailure || stub.extensions().containsKey(States.KEY));
  }

  @Override
  public String toString() {
    return head.toString();
  }
}
