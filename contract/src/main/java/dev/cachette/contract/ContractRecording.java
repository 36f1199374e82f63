// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import dev.cachette.Cachette;
import dev.cachette.CachetteInternals;
import dev.cachette.Stub;
import dev.cachette.http.Uri;
import dev.cachette.internal.contract.Contract;
import dev.cachette.internal.contract.Names;
import dev.cachette.internal.contract.Recorder;
import dev.cachette.internal.misuse.Refusals;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.WeakHashMap;
import java.util.concurrent.ConcurrentHashMap;

/**
 * A contract that is recorded by the tests of a consumer, see {@link Contracts#record}.
 *
 * <p>These calls become clauses: those to the origin that a stub has answered with a response, in a
 * test that passed. Left out are faults; the statuses 429 and 5xx, unless the stub has a state with
 * {@link StubClause#given}; and stubs that are {@link Stub#unchecked() unchecked}. If two tests
 * rely on what no provider can do, the session fails when it ends, and names both.
 *
 * <p>The extensions for test frameworks say which tests failed. Plain code calls {@link
 * Cachette#markFailed}.
 *
 * <p>Thread-safe.
 */
public final class ContractRecording {

  /** Who begins to record in each test, goes on with what was begun in the first one. */
  private static final Map<Cachette, Map<Contract, Recorder>> OF_SESSION =
      Collections.synchronizedMap(new WeakHashMap<>());

  private final Cachette net;
  private final Recorder recorder;

  private ContractRecording(Cachette net, Recorder recorder) {
    this.net = net;
    this.recorder = recorder;
  }

  static ContractRecording begin(Cachette net, String consumer, String provider, String origin) {
    Names.require("The consumer", consumer);
    Names.require("The provider", provider);
    String at = Uri.parseOrigin(Refusals.given("origin", origin)).origin();
    Contract head = new Contract(consumer, provider, at, List.of());
    return new ContractRecording(
        net,
        OF_SESSION
            .computeIfAbsent(net, session -> new ConcurrentHashMap<>())
            .computeIfAbsent(head, contract -> recorder(net, contract)));
  }

  private static Recorder recorder(Cachette net, Contract head) {
    Recorder recorder =
        new Recorder(head, CachetteInternals.contractFolder(net), CachetteInternals.name(net));
    CachetteInternals.observe(net, recorder);
    return recorder;
  }

  /**
   * Says more of the clause of a stub: the states of the provider, and what the consumer needs of
   * the response.
   */
  public StubClause clause(Stub stub) {
    return new StubClause(Refusals.given("clause(stub)", stub));
  }

  /** Returns consumer and provider, and the session. */
  @Override
  public String toString() {
    return recorder + ", recorded by " + net;
  }
}
