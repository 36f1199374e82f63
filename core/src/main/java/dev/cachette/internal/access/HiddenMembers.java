package dev.cachette.internal.access;

import java.lang.reflect.Constructor;

/** Creates the classes that give the implementation package-private members of public types. */
public final class HiddenMembers {

  private HiddenMembers() {}

  /**
   * Returns the implementation of an access class.
   *
   * @param implementation the name of its only subclass, in the package of the public types
   */
  public static <T> T of(Class<T> access, String implementation) {
    try {
      Constructor<?> constructor = Class.forName(implementation).getDeclaredConstructor();
      constructor.setAccessible(true);
      return access.cast(constructor.newInstance());
    } catch (ReflectiveOperationException impossible) {
      throw new IllegalStateException(impossible);
    }
  }
}
