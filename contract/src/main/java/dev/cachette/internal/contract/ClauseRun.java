// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.masking.RequestMask;
import dev.cachette.internal.secret.Masking;
import dev.cachette.result.Check;
import dev.cachette.verification.ClauseResult;
import dev.cachette.verification.ClauseResult.Outcome;
import dev.cachette.verification.GivenState;
import dev.cachette.verification.Step;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Verifies the clauses of one contract. */
public final class ClauseRun {

  private final VersionedContract contract;
  private final ClauseCall call;
  private final StateChanges states;
  private final List<Step> before;
  private final List<Step> after;

  /** Verifies with these settings. */
  public ClauseRun(
      VersionedContract contract,
      ClauseCall call,
      StateChanges states,
      List<Step> before,
      List<Step> after) {
    this.contract = contract;
    this.call = call;
    this.states = states;
    this.before = before;
    this.after = after;
  }

  /** Verifies one clause. */
  public ClauseResult of(Clause clause) {
    Run run = new Run(clause);
    try {
      run.go();
    } catch (StateChanges.Unknown | ClauseCall.Failed known) {
      run.fail(known.getMessage());
    } catch (Exception failed) {
      run.fail("failed: " + failed);
    } finally {
      run.undo();
    }
    return run.result();
  }

  /** One clause on its way. */
  private final class Run {

    private final Clause clause;
    private final List<GivenState> entered = new ArrayList<>();
    private String line;
    private List<Check> checks = List.of();
    private @Nullable String problem;
    private Duration took = Duration.ZERO;

    Run(Clause clause) {
      this.clause = clause;
      this.line = clause.example().request().toString();
    }

    void fail(@Nullable String why) {
      problem = problem == null ? String.valueOf(why) : problem + "\n" + why;
    }

    void go() throws Exception {
      for (Step step : before) {
        step.run();
      }
      for (GivenState written : clause.given()) {
        GivenState state = call.filled(written);
        entered.add(state);
        states.change(state, true, contract.contract(), clause, call.http());
      }
      Request request = call.request(clause);
      line = request.method() + " " + Masking.url(call.url(request).toString());
      long start = System.nanoTime();
      Response response = call.send(request);
      took = Duration.ofNanos(System.nanoTime() - start);
      checks = ClauseCheck.of(clause, response);
      if (checks.stream().anyMatch(it -> !it.holds())) {
        checks = RequestMask.of(request, List.of(response)).checks(checks);
      }
    }

    /** Undoes in reverse, and goes on after failures. */
    void undo() {
      Collections.reverse(entered);
      for (GivenState state : entered) {
        attempt(
            () -> states.change(state, false, contract.contract(), clause, call.http()),
            "leaving the state \"" + state.name() + "\"");
      }
      after.forEach(step -> attempt(step, "after the clause"));
    }

    private void attempt(Step step, String what) {
      try {
        step.run();
      } catch (StateChanges.Unknown known) {
        if (problem == null) {
          fail(known.getMessage());
        }
      } catch (Exception failed) {
        fail(what + " failed: " + failed);
      }
    }

    ClauseResult result() {
      Outcome outcome =
          problem != null
              ? Outcome.NOT_CHECKED
              : checks.stream().allMatch(Check::holds) ? Outcome.MET : Outcome.NOT_MET;
      return new ClauseResult(
          contract.contract().consumer(),
          contract.version(),
          contract.contract().provider(),
          clause.name(),
          line,
          clause.given().stream().map(GivenState::toString).toList(),
          List.copyOf(clause.neededBy()),
          outcome,
          checks,
          problem == null ? "" : problem,
          took);
    }
  }
}
