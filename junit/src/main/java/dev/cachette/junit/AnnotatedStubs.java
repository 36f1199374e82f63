// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import static org.junit.platform.commons.support.AnnotationSupport.findAnnotation;

import dev.cachette.Cachette;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.extension.ExtensionContext.Namespace;
import org.junit.jupiter.api.extension.ExtensionContext.Store;

/** Loads the stub files of {@link Stubs} annotations. */
final class AnnotatedStubs {

  private static final Namespace NAMESPACE = Namespace.create(AnnotatedStubs.class);

  private AnnotatedStubs() {}

  /** Where they were loaded; JUnit would close a Cachette in its store. */
  private record Loaded(Cachette net) {}

  /** Loads those of the enclosing classes, outermost first, unless loaded already; then its own. */
  static void load(ExtensionContext context, Cachette net) {
    context.getParent().ifPresent(outer -> load(outer, net));
    Store store = context.getStore(NAMESPACE);
    Loaded loaded = new Loaded(net);
    if (!loaded.equals(store.get(context.getUniqueId()))) {
      store.put(context.getUniqueId(), loaded);
      findAnnotation(context.getElement(), Stubs.class).ifPresent(stubs -> net.load(stubs.value()));
    }
  }
}
