// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** A condition that holds if all of its conditions hold; there is at least one. */
record AllOf(List<Condition> conditions) implements Condition, StubForm {

  @Override
  public Optional<JsonNode> written() {
    return StubNodes.member("allOf", StubNodes.all(conditions.stream().map(StubForm::of).toList()));
  }

  @Override
  public String description() {
    return conditions.stream().map(Condition::description).collect(Collectors.joining(", and "));
  }

  @Override
  public boolean holds(Received received) {
    return conditions.stream().allMatch(condition -> condition.holds(received));
  }

  @Override
  public Check check(Received received) {
    List<Check> checks = conditions.stream().map(condition -> condition.check(received)).toList();
    Set<String> names = new LinkedHashSet<>();
    List<Difference> differences = new ArrayList<>();
    for (Check check : checks) {
      names.add(check.condition());
      differences.addAll(Placing.of(check));
    }
    String expected = checks.stream().map(Check::expected).collect(Collectors.joining(", and "));
    String name = String.join(" and ", names);
    double nearness = checks.stream().mapToDouble(Check::nearness).average().orElse(1);
    return differences.isEmpty()
        ? Check.held(name, expected)
        : Check.missed(name, nearness, expected, differences);
  }
}
