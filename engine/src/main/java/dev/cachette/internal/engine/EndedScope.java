// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.calls.Call;
import dev.cachette.internal.calls.Log;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.internal.openapi.Described;
import dev.cachette.result.StubStatus;
import java.util.List;
import java.util.Optional;

/**
 * The content of a scope when it ended.
 *
 * @param test what it was for
 * @param failure why its test has failed, as far as is known
 * @param report its report
 * @param stubs its stubs, and what has become of them
 * @param described the services with an API description
 * @param log its calls
 * @param inForce the stubs that could answer them: its own, and those of the scopes around it
 */
public record EndedScope(
    TestId test,
    Optional<String> failure,
    ScopeReport report,
    List<StubStatus> stubs,
    List<Described> described,
    Log.Entries<Call> log,
    List<StubSpec> inForce) {}
