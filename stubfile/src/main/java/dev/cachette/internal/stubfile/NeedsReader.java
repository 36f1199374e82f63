// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.internal.fields.Fields;
import dev.cachette.internal.fields.Problems;
import dev.cachette.internal.json.JsonQuery;
import dev.cachette.internal.json.JsonSchemas;
import dev.cachette.internal.yaml.Node;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;

/** Validates what stubs need of responses, and the shapes in contract files. */
final class NeedsReader {

  /** The characters of a header name (RFC 9110 section 5.6.2). */
  private static final Pattern HEADER = Pattern.compile("[A-Za-z0-9!#%&'*+.^_`|~-]+");

  private NeedsReader() {}

  /** Reports the problems of {@code needs}. */
  static void check(Node node, Problems problems) {
    for (Node.Member member : Fields.any(node, problems).members()) {
      place(member, problems);
      if (member.value().isMapping()) {
        need(Fields.of(member.value(), "need", ContractKeys.NEED, problems), problems);
      } else if (!ContractKeys.FLAGS.contains(member.value().text())) {
        problems.unknown(member.value(), member.value().text(), "need", ContractKeys.NEED.names());
      }
    }
  }

  private static void place(Node.Member member, Problems problems) {
    String name = member.name();
    if (name.startsWith("$") || name.startsWith("/") || name.isEmpty()) {
      problems.attempt(member.key(), () -> JsonQuery.parse(name));
    } else if (!HEADER.matcher(name).matches()) {
      problems.add(
          member.key(),
          "\"" + name + "\" is neither a JSON path ($.member) nor the name of a header.");
    }
  }

  private static void need(Fields need, Problems problems) {
    ContractKeys.FLAGS.forEach(need::flag);
    need.text("format")
        .filter(it -> !ContractKeys.FORMATS.contains(it))
        .ifPresent(
            it ->
                problems.unknown(
                    need.get("format").orElseThrow(), it, "format", ContractKeys.FORMATS));
    need.get("pattern").ifPresent(at -> problems.attempt(at, () -> compiled(at.text())));
    need.get("oneOf")
        .filter(at -> !at.isSequence())
        .ifPresent(at -> problems.add(at, "oneOf needs a sequence of values: [open, closed]."));
    if (need.members().isEmpty()) {
      problems.add(need.node(), "an empty mapping needs nothing. Fix: { optional: true }.");
    }
  }

  private static Pattern compiled(String text) {
    try {
      return Pattern.compile(text);
    } catch (PatternSyntaxException malformed) {
      throw new IllegalArgumentException(
          "malformed regular expression: " + malformed.getDescription() + ".", malformed);
    }
  }

  /** Reports the problems of a {@code shape}. */
  static void checkShape(Node node, StubFields stub) {
    Fields shape = stub.within(node, "key of a shape", ContractKeys.SHAPE);
    shape.members("headers").forEach(each -> schema(each.value(), stub.problems()));
    shape.get("body").ifPresent(body -> schema(body, stub.problems()));
  }

  private static void schema(Node node, Problems problems) {
    problems.attempt(node, () -> new JsonSchemas(node.json()));
  }
}
