// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.fields;

import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.StubNodes;
import java.util.Collection;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The keys of a mapping, in the order of its reference. */
public final class Keys<R> {

  private final Map<String, Key<R>> byName = new LinkedHashMap<>();
  private final Set<String> names = Collections.unmodifiableSet(byName.keySet());

  private Keys() {}

  /** Returns the keys of a mapping. */
  @SafeVarargs
  public static <R> Keys<R> of(Key<R>... keys) {
    Keys<R> all = new Keys<>();
    for (Key<R> key : keys) {
      all.byName.put(key.name(), key);
    }
    return all;
  }

  /** Returns the keys of a mapping that reads each of these groups in its own way. */
  public static Keys<Void> all(List<Keys<?>> groups) {
    Keys<Void> all = new Keys<>();
    for (Keys<?> keys : groups) {
      for (Key<?> key : keys.all()) {
        all.byName.put(key.name(), Key.of(key.name(), key.help(), key.shape()));
      }
    }
    return all;
  }

  public Collection<Key<R>> all() {
    return byName.values();
  }

  public Set<String> names() {
    return names;
  }

  public boolean contains(String name) {
    return byName.containsKey(name);
  }

  /** Returns how the value of a key is read; null if there is no such key. */
  public @Nullable R reading(String name) {
    Key<R> key = byName.get(name);
    return key == null ? null : key.reading();
  }

  /** Returns those with these names. */
  public Keys<R> only(Set<String> some) {
    Keys<R> all = new Keys<>();
    all.byName.putAll(byName);
    all.byName.keySet().retainAll(some);
    return all;
  }

  /** Returns the JSON Schemas of the values, by key. */
  public ObjectNode schemas() {
    ObjectNode schemas = StubNodes.object();
    byName.values().forEach(key -> schemas.set(key.name(), key.schema()));
    return schemas;
  }
}
