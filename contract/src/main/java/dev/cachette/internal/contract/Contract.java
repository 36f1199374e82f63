// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.stubfile.StubWriter;
import java.util.ArrayList;
import java.util.List;

/**
 * What a consumer needs of a provider.
 *
 * @param consumer the name of the application that calls
 * @param provider the name of the service that answers
 * @param origin the origin of the provider in the requests
 * @param clauses its clauses, sorted by name
 */
public record Contract(String consumer, String provider, String origin, List<Clause> clauses) {

  /** The ending of the names of contract files. */
  public static final String ENDING = ".contract.yaml";

  private static final String HEAD =
      "# The contract of %s with %s, written by the tests of %s. It is a stub file, too.%n";

  /** Copies the list. */
  public Contract {
    clauses = List.copyOf(clauses);
  }

  /** Reads the tree of a valid contract file. */
  static Contract read(JsonNode file) {
    List<Clause> clauses = new ArrayList<>();
    file.path("stubs").forEach(each -> clauses.add(Clause.read(each)));
    JsonNode contract = file.path("contract");
    return new Contract(
        contract.path("consumer").asText(),
        contract.path("provider").asText(),
        contract.path("origin").asText(),
        clauses);
  }

  /** Returns the name of its file: {@code harbour-desk--berths.contract.yaml}. */
  public String fileName() {
    return consumer + "--" + provider + ENDING;
  }

  /** Returns its text: the same bytes for the same contract. */
  public String text() {
    ObjectNode file = StubNodes.object();
    file.putObject("contract")
        .put("consumer", consumer)
        .put("provider", provider)
        .put("origin", origin);
    file.setAll(StubWriter.file(clauses.stream().map(Clause::form).toList()));
    return String.format(HEAD, consumer, provider, consumer).replace("\r\n", "\n")
        + StubWriter.yaml(file);
  }

  /** Returns consumer and provider. */
  @Override
  public String toString() {
    return "the contract of " + consumer + " with " + provider;
  }
}
