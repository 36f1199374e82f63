// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.graphql;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.secret.Masking;
import graphql.language.Document;
import graphql.language.Field;
import graphql.language.FragmentDefinition;
import graphql.language.FragmentSpread;
import graphql.language.InlineFragment;
import graphql.language.OperationDefinition;
import graphql.language.Selection;
import graphql.language.SelectionSet;
import graphql.parser.InvalidSyntaxException;
import graphql.parser.Parser;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** Parses GraphQL documents with graphql-java, and finds the requested operation. */
final class GraphQlDocuments {

  private GraphQlDocuments() {}

  /**
   * Returns the operation.
   *
   * @param operationName selects one if the document has several
   * @throws IllegalArgumentException if the document is malformed or has no such operation
   */
  static GraphQlOperation operation(
      String document, Optional<String> operationName, JsonNode variables) {
    Document parsed = parse(document);
    List<OperationDefinition> operations = parsed.getDefinitionsOfType(OperationDefinition.class);
    OperationDefinition meant =
        operations.stream()
            .filter(each -> operationName.map(name -> name.equals(each.getName())).orElse(true))
            .findFirst()
            .orElseThrow(
                () ->
                    Refusals.argument(
                        operationName
                                .map(
                                    name ->
                                        "operationName is \"" + name + "\", but its document has ")
                                .orElse("its document has ")
                            + (operations.isEmpty() ? "no operation" : names(operations))));
    List<String> fields = new ArrayList<>();
    collect(meant.getSelectionSet(), parsed, new HashSet<>(), fields);
    return new GraphQlOperation(
        Optional.ofNullable(meant.getName()),
        meant.getOperation().name().toLowerCase(Locale.ROOT),
        fields,
        variables);
  }

  private static Document parse(String document) {
    try {
      return Parser.parse(document);
    } catch (InvalidSyntaxException malformed) {
      throw Refusals.argument(
          String.format(
              "its document is not valid GraphQL, line %d, column %d: %s",
              malformed.getLocation().getLine(),
              malformed.getLocation().getColumn(),
              Masking.quotedToken(malformed.getMessage(), document)),
          malformed);
    }
  }

  private static void collect(
      SelectionSet selections, Document document, Set<String> followed, List<String> into) {
    for (Selection<?> selection : selections.getSelections()) {
      if (selection instanceof Field field) {
        into.add(field.getName());
      } else if (selection instanceof InlineFragment inline) {
        collect(inline.getSelectionSet(), document, followed, into);
      } else if (selection instanceof FragmentSpread spread && followed.add(spread.getName())) {
        document.getDefinitionsOfType(FragmentDefinition.class).stream()
            .filter(fragment -> fragment.getName().equals(spread.getName()))
            .forEach(fragment -> collect(fragment.getSelectionSet(), document, followed, into));
      }
    }
  }

  private static String names(List<OperationDefinition> operations) {
    return operations.stream()
        .map(operation -> "\"" + operation.getName() + "\"")
        .collect(Collectors.joining(", "));
  }
}
