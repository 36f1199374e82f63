// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.http.Uri;
import dev.cachette.internal.collection.Items;
import dev.cachette.internal.fields.Fields;
import dev.cachette.internal.fields.Problems;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.yaml.Node;
import dev.cachette.internal.yaml.Trees;
import dev.cachette.match.RequestPattern;
import dev.cachette.stubfile.StubFileProblem;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Supplier;

/**
 * The content of a stub file.
 *
 * @param name the name of the file
 * @param stubs its stubs, without invalid ones
 * @param collections its collections
 * @param includes the files that it includes, relative to itself
 * @param cors whether pages of other origins may call
 * @param tree its text as a tree; empty if it is not valid YAML
 */
public record StubFile(
    String name,
    List<StubDeclaration> stubs,
    List<CollectionDeclaration> collections,
    List<Include> includes,
    boolean cors,
    Optional<Node> tree,
    Supplier<List<StubFileProblem>> found) {

  /**
   * An included file.
   *
   * @param name its name as written
   * @param refuse reports why it cannot be read
   */
  public record Include(String name, Consumer<String> refuse) {}

  /** Returns the keys of a stub besides its request and answers: how often and when it answers. */
  public static Set<String> behaviorKeys() {
    Set<String> keys = new HashSet<>(StubKeys.BEHAVIOR.names());
    keys.addAll(Set.of("where", "check", "after"));
    keys.remove("unchecked");
    return keys;
  }

  /** Returns its problems, sorted by line. */
  public List<StubFileProblem> problems() {
    return found.get();
  }

  /** Reads a file. */
  public static StubFile read(String name, String text, StubFileResolver surroundings) {
    Problems problems = new Problems(name);
    problems.hint(SharedParts.REFERENCE, SharedParts.NOT_A_REFERENCE);
    problems.hint(
        "issuer",
        "an identity file begins with an issuer, a stub file does not. Fix: serve --identity, or"
            + " IdentityProvider.load(...).");
    List<StubDeclaration> stubs = new ArrayList<>();
    List<CollectionDeclaration> collections = new ArrayList<>();
    List<Include> includes = new ArrayList<>();
    Optional<Node> root = Trees.read(text, problems::note);
    if (root.isEmpty() && problems.all().isEmpty()) {
      problems.note(1, 1, "", "the file is empty. Fix: begin with stubs:");
    }
    boolean[] cors = {false};
    root.ifPresent(
        whole -> {
          Node node = SharedParts.filledIn(whole, problems);
          Fields fields = Fields.of(node, "key of a stub file", FileKeys.ALL, problems);
          StubReader reader = new StubReader(problems, surroundings);
          fields.list("stubs").forEach(each -> reader.read(each).ifPresent(stubs::add));
          fields
              .list("collections")
              .forEach(each -> collection(each, problems).ifPresent(collections::add));
          fields.get("contract").ifPresent(at -> contract(at, problems));
          cors[0] = fields.flag("cors").orElse(false);
          for (Node each : fields.list("include")) {
            includes.add(new Include(each.text(), why -> problems.add(each, why)));
          }
        });
    return new StubFile(
        name,
        List.copyOf(stubs),
        List.copyOf(collections),
        List.copyOf(includes),
        cors[0],
        root,
        problems::all);
  }

  private static void contract(Node node, Problems problems) {
    Fields fields = Fields.of(node, "key of a contract", ContractKeys.CONTRACT, problems);
    for (String name : ContractKeys.CONTRACT.names()) {
      if (node.isMapping() && fields.text(name).isEmpty()) {
        problems.add(node, "a contract needs its " + name + ".");
      }
    }
    fields.get("origin").ifPresent(at -> problems.attempt(at, () -> Uri.parseOrigin(at.text())));
  }

  private static Items seeded(String seed, Optional<String> identifiedBy) {
    Items items = new Items();
    identifiedBy.ifPresent(items::identifiedBy);
    items.seed(seed);
    return items;
  }

  private static Optional<CollectionDeclaration> collection(Node node, Problems problems) {
    Fields fields = Fields.of(node, "key of a collection", FileKeys.COLLECTION, problems);
    Optional<String> url = fields.text("url");
    if (url.isEmpty()) {
      problems.add(node, "a collection needs a url.");
    }
    String seed = fields.get("seed").map(it -> Json.text(it.json())).orElse("[]");
    fields
        .get("seed")
        .filter(it -> !it.isSequence())
        .ifPresent(
            it -> problems.add(it, "the seed of a collection must be a sequence of objects."));
    fields
        .get("url")
        .ifPresent(at -> problems.attempt(at, () -> RequestPattern.of("GET " + at.text())));
    fields
        .get("seed")
        .filter(Node::isSequence)
        .ifPresent(at -> problems.attempt(at, () -> seeded(seed, fields.text("identifiedBy"))));
    boolean etags = fields.isSet("etags");
    return url.map(it -> new CollectionDeclaration(it, seed, fields.text("identifiedBy"), etags));
  }
}
