// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import static org.junit.platform.commons.support.AnnotationSupport.findAnnotation;
import static org.junit.platform.commons.support.ReflectionSupport.findFields;

import dev.cachette.Settings;
import dev.cachette.UnusedStubs;
import java.lang.reflect.Field;
import java.lang.reflect.Modifier;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.junit.jupiter.api.extension.ExtensionConfigurationException;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.platform.commons.support.HierarchyTraversalMode;
import org.junit.platform.commons.support.ReflectionSupport;

/** Finds the settings of a test: from the annotation, a static field, and properties. */
final class TestSettings {

  private TestSettings() {}

  /**
   * Returns the settings.
   *
   * @param given those of the extension's field; empty for an annotation
   * @throws ExtensionConfigurationException if there are several, or if a property is invalid
   */
  static Settings of(ExtensionContext context, Optional<Settings> given) {
    Settings settings = given.or(() -> declared(context)).orElseGet(Settings::defaults);
    Optional<UnusedStubs> unused = unusedStubs(context);
    if (unused.isPresent()) {
      settings = settings.unusedStubs(unused.get());
    }
    try {
      JUnitProperties.requireKnown(context);
      return settings.withProperties(name -> context.getConfigurationParameter(name).orElse(null));
    } catch (IllegalArgumentException invalid) {
      throw new ExtensionConfigurationException(invalid.getMessage(), invalid);
    }
  }

  /** Returns the settings that the annotation or a static field of the test class supplies. */
  private static Optional<Settings> declared(ExtensionContext context) {
    Optional<Class<? extends Supplier<Settings>>> supplier = supplier(context);
    List<Field> fields = fields(context.getRequiredTestClass());
    if (fields.size() + (supplier.isPresent() ? 1 : 0) > 1) {
      List<String> places = new ArrayList<>();
      supplier.ifPresent(
          type -> places.add("@InterceptHttp(settings = " + type.getSimpleName() + ")"));
      fields.forEach(field -> places.add("the field " + field.getName()));
      throw new ExtensionConfigurationException(
          context.getRequiredTestClass().getName()
              + " has several settings: "
              + String.join(", ", places)
              + ". Fix: keep one of them.");
    }
    return supplier
        .map(TestSettings::supplied)
        .or(() -> fields.stream().findFirst().map(TestSettings::valueOf));
  }

  /** Returns true if this class or method itself declares settings, not one around it. */
  static boolean areDeclaredOn(ExtensionContext context) {
    return supplier(context).isPresent()
        || context.getTestMethod().isEmpty()
            && context.getTestClass().filter(type -> !fieldsOf(type).isEmpty()).isPresent();
  }

  private static Optional<Class<? extends Supplier<Settings>>> supplier(ExtensionContext context) {
    return findAnnotation(context.getElement(), InterceptHttp.class)
        .<Class<? extends Supplier<Settings>>>map(InterceptHttp::settings)
        .filter(type -> type != InterceptHttp.None.class);
  }

  private static Settings supplied(Class<? extends Supplier<Settings>> type) {
    Settings settings = ReflectionSupport.newInstance(type).get();
    if (settings == null) {
      throw new ExtensionConfigurationException(type.getName() + " supplied null settings.");
    }
    return settings;
  }

  private static Optional<UnusedStubs> unusedStubs(ExtensionContext context) {
    Optional<ExtensionContext> place = Optional.of(context);
    while (place.isPresent()) {
      Optional<InterceptHttp> annotation =
          findAnnotation(place.get().getElement(), InterceptHttp.class);
      if (annotation.isPresent() && annotation.get().unusedStubs().length > 1) {
        throw new ExtensionConfigurationException(
            "@InterceptHttp(unusedStubs = {...}) needs at most one value.");
      }
      if (annotation.isPresent() && annotation.get().unusedStubs().length == 1) {
        return Optional.of(annotation.get().unusedStubs()[0]);
      }
      place = place.get().getParent();
    }
    return Optional.empty();
  }

  /** Returns the fields of the class, or of the closest enclosing class that has any. */
  private static List<Field> fields(Class<?> testClass) {
    for (Class<?> type = testClass; type != null; type = type.getEnclosingClass()) {
      List<Field> fields = fieldsOf(type);
      if (!fields.isEmpty()) {
        return fields;
      }
    }
    return List.of();
  }

  private static List<Field> fieldsOf(Class<?> type) {
    return findFields(
            type,
            field -> field.getType() == Settings.class && Modifier.isStatic(field.getModifiers()),
            HierarchyTraversalMode.TOP_DOWN)
        .stream()
        .sorted(Comparator.comparing(Field::getName))
        .toList();
  }

  private static Settings valueOf(Field field) {
    try {
      Object value = ReflectionSupport.tryToReadFieldValue(field, null).get();
      if (value == null) {
        throw new ExtensionConfigurationException(
            "The field " + field.getName() + " with the settings of the test is null.");
      }
      return (Settings) value;
    } catch (ExtensionConfigurationException isNull) {
      throw isNull;
    } catch (Exception unreadable) {
      throw new ExtensionConfigurationException(
          "The field " + field.getName() + " cannot be read.", unreadable);
    }
  }
}
