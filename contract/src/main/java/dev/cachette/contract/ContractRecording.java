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
import java.nio.file.Path;
import java.util.List;

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
    Path folder = CachetteInternals.contractFolder(net);
    Contract head = new Contract(consumer, provider, at, List.of());
    Recorder recorder = new Recorder(head, folder, CachetteInternals.name(net));
    CachetteInternals.observe(net, recorder);
    return new ContractRecording(net, recorder);
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
