// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.verification.GivenState;
import java.util.Collections;
import java.util.List;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeSet;

/**
 * A clause of a contract: a request that the consumer sends, and what it needs of the response. It
 * is written as a stub with more in it.
 *
 * @param name its name, unique in its contract
 * @param given the states that the provider must be in
 * @param request the request line and conditions, in the form of stub files
 * @param example a request that was made
 * @param answer a response that the consumer can process, in the form of stub files
 * @param shape what it relies on of it
 * @param neededBy the tests of the consumer that rely on it
 */
public record Clause(
    String name,
    List<GivenState> given,
    ObjectNode request,
    SampleRequest example,
    JsonNode answer,
    ResponseShape shape,
    SortedSet<String> neededBy) {

  private static final Set<String> OTHER_KEYS =
      Set.of("name", States.KEY, "example", "answer", "answers", "shape", "neededBy", "needs");

  /** Copies the collections. */
  public Clause {
    given = List.copyOf(given);
    request = request.deepCopy();
    neededBy = Collections.unmodifiableSortedSet(new TreeSet<>(neededBy));
  }

  /** Reads a clause from the form of stub files. */
  static Clause read(JsonNode form) {
    ObjectNode request = StubNodes.object();
    form.properties().stream()
        .filter(it -> !OTHER_KEYS.contains(it.getKey()))
        .forEach(it -> request.set(it.getKey(), it.getValue()));
    SortedSet<String> neededBy = new TreeSet<>();
    form.path("neededBy").forEach(it -> neededBy.add(it.asText()));
    JsonNode answer = form.has("answer") ? form.get("answer") : form.path("answers").path(0);
    return new Clause(
        form.has("name") ? form.get("name").asText() : form.path("request").asText(),
        States.read(form.get(States.KEY)),
        request,
        SampleRequest.read(form.get("example")),
        answer,
        ResponseShape.read(form.path("shape")),
        neededBy);
  }

  /** Returns the clause in the form of stub files. */
  public ObjectNode form() {
    ObjectNode form = StubNodes.object();
    form.put("name", name);
    request.properties().forEach(it -> form.set(it.getKey(), it.getValue()));
    form.set("answer", answer);
    States.write(given).ifPresent(it -> form.set(States.KEY, it));
    form.set("example", example.form());
    form.set("shape", shape.form());
    form.set("neededBy", StubNodes.texts(neededBy));
    return form;
  }

  /** Returns the status of its response. */
  public int status() {
    return answer.isInt() ? answer.intValue() : answer.path("status").asInt(200);
  }

  /** Returns the clause with another name. */
  Clause named(String other) {
    return new Clause(other, given, request, example, answer, shape, neededBy);
  }

  /** Returns the clause with more tests that need it. */
  Clause neededAlsoBy(Set<String> more) {
    SortedSet<String> all = new TreeSet<>(neededBy);
    all.addAll(more);
    return new Clause(name, given, request, example, answer, shape, all);
  }
}
