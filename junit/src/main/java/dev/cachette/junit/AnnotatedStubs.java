package dev.cachette.junit;

import static org.junit.platform.commons.support.AnnotationSupport.findAnnotation;

import dev.cachette.Cachette;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.extension.ExtensionContext.Namespace;
import org.junit.jupiter.api.extension.ExtensionContext.Store;

/** Loads the stub files that {@link Stubs} names. */
final class AnnotatedStubs {

  private static final Namespace NAMESPACE = Namespace.create(AnnotatedStubs.class);

  private AnnotatedStubs() {}

  /** Where they were loaded; in a store of JUnit's, a Cachette itself would be closed with it. */
  private record Loaded(Cachette net) {}

  /** Those of the classes around, the outermost first, unless they are loaded; then its own. */
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
