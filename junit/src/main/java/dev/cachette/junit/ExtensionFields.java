// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import static org.junit.platform.commons.support.AnnotationSupport.findAnnotatedFields;
import static org.junit.platform.commons.support.AnnotationSupport.isAnnotated;

import java.lang.reflect.Field;
import java.lang.reflect.Modifier;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.extension.ExtensionConfigurationException;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.platform.commons.support.HierarchyTraversalMode;

/** The fields with a {@link CachetteExtension}, which the annotation leaves everything to. */
final class ExtensionFields {

  /** Looked for once per class, not for every test. */
  private static final ClassValue<Boolean> EXIST =
      new ClassValue<>() {
        @Override
        protected Boolean computeValue(Class<?> type) {
          List<Field> fields = of(type);
          if (!fields.isEmpty()) {
            requireConsistent(type, fields);
          }
          return !fields.isEmpty();
        }
      };

  private ExtensionFields() {}

  /**
   * Returns true if a field of the test class, or of one around it, has an extension.
   *
   * @throws ExtensionConfigurationException if annotation and field contradict each other
   */
  static boolean exist(ExtensionContext context) {
    for (Class<?> type = context.getTestClass().orElse(null);
        type != null;
        type = type.getEnclosingClass()) {
      if (EXIST.get(type)) {
        return true;
      }
    }
    return false;
  }

  private static List<Field> of(Class<?> type) {
    return findAnnotatedFields(
        type,
        RegisterExtension.class,
        field -> field.getType() == CachetteExtension.class,
        HierarchyTraversalMode.TOP_DOWN);
  }

  private static void requireConsistent(Class<?> type, List<Field> fields) {
    if (fields.size() > 1) {
      throw new ExtensionConfigurationException(
          String.format(
              "%s has several fields of CachetteExtension: %s. Fix: keep one of them.",
              type.getName(),
              fields.stream().map(Field::getName).sorted().collect(Collectors.joining(", "))));
    }
    if (isAnnotated(type, InterceptHttp.class)
        && !Modifier.isStatic(fields.get(0).getModifiers())) {
      throw new ExtensionConfigurationException(
          String.format(
              "%s has @InterceptHttp for the class, and CachetteExtension for each test in the"
                  + " field %s. Fix: make the field static, or remove the annotation.",
              type.getName(), fields.get(0).getName()));
    }
  }
}
