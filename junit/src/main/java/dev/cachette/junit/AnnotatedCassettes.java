// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import static org.junit.platform.commons.support.AnnotationSupport.findRepeatableAnnotations;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.cassette.CassetteSettings;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.extension.ExtensionConfigurationException;
import org.junit.jupiter.api.extension.ExtensionContext;

/** Activates the cassettes of {@link Cassette} annotations. */
final class AnnotatedCassettes {

  private AnnotatedCassettes() {}

  /** Named cassettes, for all tests of a class. */
  static void ofClass(ExtensionContext context, Settings settings, Cachette net) {
    on(context).stream()
        .filter(cassette -> !cassette.value().isEmpty())
        .forEach(cassette -> put(cassette, cassette.value(), settings, net));
  }

  /** Cassettes of a test: its own, else the unnamed ones of its classes, innermost first. */
  static void ofTest(ExtensionContext context, Settings settings, Cachette net) {
    List<Cassette> asked = on(context);
    Optional<ExtensionContext> outer = context.getParent();
    while (asked.isEmpty() && outer.isPresent()) {
      boolean factory = outer.get().getTestMethod().isPresent();
      asked = on(outer.get()).stream().filter(it -> factory || it.value().isEmpty()).toList();
      outer = outer.get().getParent();
    }
    for (Cassette cassette : asked) {
      String name =
          cassette.value().isEmpty()
              ? CassetteNames.of(context)
              : CassetteNames.of(cassette.value(), context);
      put(cassette, name, settings, net);
    }
  }

  private static List<Cassette> on(ExtensionContext context) {
    return findRepeatableAnnotations(context.getElement(), Cassette.class);
  }

  private static void put(Cassette cassette, String name, Settings settings, Cachette net) {
    CassetteSettings how = settings.cassettes();
    if (cassette.mode().length > 1) {
      throw new ExtensionConfigurationException(
          "@Cassette(mode = {...}) needs at most one mode, not " + cassette.mode().length);
    }
    if (cassette.mode().length == 1) {
      how = how.mode(cassette.mode()[0]);
    }
    if (cassette.hosts().length > 0) {
      how = how.hosts(cassette.hosts());
    }
    net.cassette(name, how);
  }
}
