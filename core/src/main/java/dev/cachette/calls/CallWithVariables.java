// SPDX-License-Identifier: Apache-2.0
package dev.cachette.calls;

import java.util.Collections;
import java.util.Map;
import java.util.Objects;

/** A call with the variables of another request line than that of its stub. */
final class CallWithVariables extends ForwardingCall {

  private final Map<String, String> variables;

  CallWithVariables(Call call, Map<String, String> variables) {
    super(call);
    this.variables = Collections.unmodifiableMap(variables);
  }

  @Override
  public Map<String, String> variables() {
    return variables;
  }

  @Override
  public boolean equals(Object other) {
    return other instanceof CallWithVariables call
        && call.behind().equals(behind())
        && call.variables.equals(variables);
  }

  @Override
  public int hashCode() {
    return Objects.hash(behind(), variables);
  }
}
