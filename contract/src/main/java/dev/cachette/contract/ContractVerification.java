// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import dev.cachette.http.Request;
import dev.cachette.internal.contract.ClauseCall;
import dev.cachette.internal.contract.ClauseRun;
import dev.cachette.internal.contract.StateChanges;
import dev.cachette.internal.contract.VersionedContract;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.verification.ClauseResult;
import dev.cachette.verification.StateHandler;
import dev.cachette.verification.Step;
import dev.cachette.verification.VerificationResult;
import java.net.URI;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Predicate;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicNode;

/**
 * Verifies a provider against its contracts: sends the request of each clause to the running
 * provider, and compares the response with what the consumer needs.
 *
 * <p>For one thread; clauses are verified one after the other.
 */
public final class ContractVerification {

  private final String provider;
  private final String location;
  private List<VersionedContract> contracts;
  private final ClauseCall.Builder call = new ClauseCall.Builder();
  private final StateChanges states = new StateChanges();
  private final List<Step> before = new ArrayList<>();
  private final List<Step> after = new ArrayList<>();

  ContractVerification(String provider, String location, List<VersionedContract> contracts) {
    this.provider = provider;
    this.location = location;
    this.contracts = contracts;
  }

  /**
   * Sets the base URL of the running provider: {@code http://localhost:8080}, or with a path that
   * precedes that of each request.
   *
   * @throws IllegalArgumentException if it is not an http or https URL
   */
  public ContractVerification against(String baseUrl) {
    call.against(Refusals.given("against(baseUrl)", baseUrl));
    return this;
  }

  /** As {@link #against(String)}. */
  public ContractVerification against(URI baseUrl) {
    return against(Refusals.given("against(baseUrl)", baseUrl).toString());
  }

  /**
   * Brings the provider into a state before each clause that is given in it.
   *
   * @param state its name
   */
  public ContractVerification given(String state, StateHandler setUp) {
    return given(state, setUp, it -> {});
  }

  /**
   * Brings the provider into a state before each clause that is given in it, and back afterwards,
   * even if the clause fails.
   *
   * @throws IllegalArgumentException if the state has a handler already
   */
  public ContractVerification given(String state, StateHandler setUp, StateHandler tearDown) {
    states.handle(
        Refusals.given("given(state, handler)", state),
        Refusals.given("given(state, handler)", setUp),
        Refusals.given("given(state, setUp, tearDown)", tearDown));
    return this;
  }

  /**
   * Brings the provider into states without a handler by HTTP: {@code POST} with a JSON object of
   * {@code state}, {@code parameters}, {@code when} ("before" or "after" the clause), {@code
   * consumer} and {@code clause}. A status of 2xx means that it is done.
   *
   * @throws IllegalArgumentException if it is not an http or https URL
   */
  public ContractVerification givenBy(String url) {
    states.by(Refusals.given("givenBy(url)", url));
    return this;
  }

  /**
   * Verifies only the contracts of one consumer.
   *
   * @throws IllegalArgumentException if there is none; the message lists the consumers there are
   */
  public ContractVerification consumer(String name) {
    Refusals.given("consumer(name)", name);
    return only(it -> it.contract().consumer().equals(name), name);
  }

  ContractVerification consumerVersion(String version) {
    Refusals.given("of(provider, consumerVersion)", version);
    return only(it -> it.version().equals(version), version);
  }

  private ContractVerification only(Predicate<VersionedContract> which, String wanted) {
    List<VersionedContract> left = contracts.stream().filter(which).toList();
    if (left.isEmpty()) {
      throw Refusals.argument(
          String.format(
              "%s has no contract of \"%s\" with %s. It has those of: %s.",
              location,
              wanted,
              provider,
              contracts.stream()
                  .map(ContractVerification::title)
                  .collect(Collectors.joining(", "))));
    }
    contracts = left;
    return this;
  }

  /** Sets a header of each request, instead of that of the example. */
  public ContractVerification header(String name, String value) {
    Refusals.given("header(name, value)", value);
    return header(name, () -> value);
  }

  /** Sets a header of each request when it is sent: {@code "Bearer " + freshToken()}. */
  public ContractVerification header(String name, Supplier<String> value) {
    Refusals.given("header(name, value)", name);
    Refusals.given("header(name, value)", value);
    return request(
        it -> new Request(it.method(), it.uri(), it.headers().with(name, value.get()), it.body()));
  }

  /** Changes each request before it is sent. */
  public ContractVerification request(UnaryOperator<Request> change) {
    call.change(Refusals.given("request(change)", change));
    return this;
  }

  /**
   * Sets the value of a secret, for its placeholder <code>{{name}}</code> in the requests.
   *
   * @throws IllegalArgumentException if it is shorter than four characters
   */
  public ContractVerification secret(String name, String value) {
    call.secret(name, value);
    return this;
  }

  /** Runs before each clause, before its states. */
  public ContractVerification before(Step step) {
    before.add(Refusals.given("before(step)", step));
    return this;
  }

  /** Runs after each clause, even if it fails. */
  public ContractVerification after(Step step) {
    after.add(Refusals.given("after(step)", step));
    return this;
  }

  /**
   * Limits the time of each call; 30 seconds by default.
   *
   * @throws IllegalArgumentException if it is not positive
   */
  public ContractVerification timeout(Duration time) {
    call.timeout(Refusals.given("timeout(time)", time));
    return this;
  }

  /**
   * Returns a dynamic test for each clause, in a container for each consumer. Needs {@code
   * junit-jupiter-api}.
   *
   * @throws IllegalStateException if {@link #against} is missing
   */
  public Stream<DynamicNode> tests() {
    ClauseCall ready = call.build();
    return ClauseTests.of(contracts, (contract, clause) -> run(contract, ready).of(clause));
  }

  static String title(VersionedContract contract) {
    return contract.contract().consumer()
        + (contract.version().isEmpty() ? "" : "@" + contract.version());
  }

  private ClauseRun run(VersionedContract contract, ClauseCall ready) {
    return new ClauseRun(contract, ready, states, List.copyOf(before), List.copyOf(after));
  }

  /**
   * Verifies all clauses.
   *
   * @throws IllegalStateException if {@link #against} is missing
   */
  public VerificationResult verify() {
    return verify(result -> {});
  }

  /**
   * Verifies all clauses.
   *
   * @param progress receives each result as soon as it is known
   * @throws IllegalStateException if {@link #against} is missing
   */
  public VerificationResult verify(Consumer<ClauseResult> progress) {
    ClauseCall ready = call.build();
    List<ClauseResult> results = new ArrayList<>();
    for (VersionedContract contract : contracts) {
      ClauseRun run = run(contract, ready);
      contract
          .contract()
          .clauses()
          .forEach(
              clause -> {
                ClauseResult result = run.of(clause);
                results.add(result);
                progress.accept(result);
              });
    }
    return new VerificationResult(provider, results);
  }

  /** Returns provider and location. */
  @Override
  public String toString() {
    return "The contracts with " + provider + " in " + location;
  }
}
