// SPDX-License-Identifier: Apache-2.0
package dev.cachette.testng;

import dev.cachette.Settings;
import java.lang.reflect.Field;
import java.lang.reflect.Modifier;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/** The settings in a static field of a test class. */
final class SettingsField {

  private SettingsField() {}

  /**
   * Returns the settings of the class or of the closest class that it extends; by default the
   * defaults.
   *
   * @throws IllegalStateException if a class has several such fields, or the field is null
   */
  static Settings of(Class<?> test) {
    for (Class<?> type = test; type != null; type = type.getSuperclass()) {
      List<Field> fields = in(type);
      if (fields.size() > 1) {
        throw new IllegalStateException(
            String.format(
                "%s has several settings: %s. Fix: keep one of them.",
                type.getName(),
                fields.stream().map(Field::getName).sorted().collect(Collectors.joining(", "))));
      }
      if (!fields.isEmpty()) {
        return valueOf(fields.get(0));
      }
    }
    return Settings.defaults();
  }

  private static List<Field> in(Class<?> type) {
    List<Field> fields = new ArrayList<>();
    for (Field field : type.getDeclaredFields()) {
      if (field.getType() == Settings.class && Modifier.isStatic(field.getModifiers())) {
        fields.add(field);
      }
    }
    return fields;
  }

  private static Settings valueOf(Field field) {
    try {
      field.setAccessible(true);
      Settings settings = (Settings) field.get(null);
      if (settings == null) {
        throw new IllegalStateException(
            "The field " + field.getName() + " with the settings of the test is null.");
      }
      return settings;
    } catch (IllegalAccessException unreadable) {
      throw new IllegalStateException(
          "The field " + field.getName() + " cannot be read.", unreadable);
    }
  }
}
