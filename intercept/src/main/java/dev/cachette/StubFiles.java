// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.internal.engine.StubRule;
import dev.cachette.internal.engine.StubScope;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.resource.StubSources;
import dev.cachette.internal.stubfile.CollectionDeclaration;
import dev.cachette.internal.stubfile.StubDeclaration;
import dev.cachette.result.StubReference;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Stubs from files. Created by {@link Cachette#load} and {@link Cachette#declare}.
 *
 * <p>Thread-safe; {@link #reload} and {@link #remove} run one at a time.
 */
public final class StubFiles {

  private final Cachette net;
  private final StubScope scope;
  private final StubSources sources;
  private volatile Content content = new Content(List.of(), List.of(), List.of(), List.of());

  /** The active stubs. */
  private record Content(
      List<Stub> stubs, List<RestCollection> collections, List<StubRule> rules, List<Path> files) {}

  StubFiles(Cachette net, StubScope scope, StubSources sources) {
    this.net = net;
    this.scope = scope;
    this.sources = sources;
    reload();
  }

  /** Returns the stubs, in the order of files and lines. */
  public List<Stub> stubs() {
    return content.stubs();
  }

  /**
   * Returns the stub with this name, or with this request line if it has no name.
   *
   * @throws IllegalArgumentException if there is none; the message lists the names
   */
  public Stub stub(String name) {
    return content.stubs().stream()
        .filter(stub -> stub.name().equals(name))
        .findFirst()
        .orElseThrow(
            () ->
                Refusals.argument(
                    String.format(
                        "There is no stub \"%s\" in %s; its stubs are %s.",
                        name, sources, content.stubs().stream().map(Stub::name).toList())));
  }

  /** Returns the unreachable stubs, each with the one that always answers instead. */
  public Map<StubReference, StubReference> unreachable() {
    Map<StubReference, StubReference> found = new LinkedHashMap<>();
    net.stubs()
        .winnersOver(content.rules())
        .forEach((rule, winner) -> found.put(rule.reference(), winner.reference()));
    return found;
  }

  /** Returns the collections, in the order of files and lines. */
  public List<RestCollection> collections() {
    return content.collections();
  }

  /** Returns the files, including included ones; none for resources on the classpath. */
  public List<Path> files() {
    return content.files();
  }

  /**
   * Reads the files again. The previous stubs are active until the new ones are: no request finds
   * neither.
   *
   * @throws dev.cachette.stubfile.StubFileException if a file is invalid; the previous stubs stay
   *     in use
   */
  public void reload() {
    StubSources.Loaded loaded = sources.read();
    List<Stub> stubs = new ArrayList<>();
    List<StubRule> rules = new ArrayList<>();
    Map<String, StubRule> byName = new HashMap<>();
    for (StubDeclaration declared : loaded.stubs()) {
      StubRule rule = net.stubs().rule(declared.spec(), declared.draft().place(), true);
      byName.putIfAbsent(rule.reference().name(), rule);
      rules.add(rule);
      stubs.add(new Stub(net, rule));
    }
    for (int at = 0; at < rules.size(); at++) {
      for (String before : loaded.stubs().get(at).after()) {
        rules.get(at).activeAfter(byName.get(before));
      }
    }
    List<RestCollection> collections = new ArrayList<>();
    for (CollectionDeclaration declared : loaded.collections()) {
      RestCollection collection = new RestCollection(net, declared.url());
      declared.identifiedBy().ifPresent(collection::identifiedBy);
      if (declared.etags()) {
        collection.withEtags();
      }
      collection.seed(declared.seed());
      rules.addAll(collection.rules());
      collections.add(collection);
    }
    net.stubs().replace(scope, content.rules(), rules);
    scope.allowCrossOrigin(this, loaded.cors());
    content = new Content(List.copyOf(stubs), List.copyOf(collections), rules, loaded.files());
  }

  /** Removes the stubs. */
  public void remove() {
    net.stubs().replace(scope, content.rules(), List.of());
    scope.allowCrossOrigin(this, false);
    content = new Content(List.of(), List.of(), List.of(), content.files());
  }

  /** Returns the names of the files. */
  @Override
  public String toString() {
    return sources.toString();
  }
}
