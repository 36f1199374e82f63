// SPDX-License-Identifier: Apache-2.0
package dev.cachette.junit;

import java.lang.reflect.Method;
import java.util.Arrays;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.junit.jupiter.api.extension.ExtensionContext;

/** Default names of cassettes: the same in every run, on every system. */
final class CassetteNames {

  private static final Pattern INVOCATION =
      Pattern.compile("(?:template-invocation|dynamic-test|dynamic-container):#(\\d+)\\]");

  private CassetteNames() {}

  /** Returns a name from the class and the test, with nested classes as folders. */
  static String of(ExtensionContext context) {
    ExtensionContext test = DynamicTests.factory(context);
    Method method = test.getRequiredTestMethod();
    StringBuilder name =
        new StringBuilder(safe(test.getRequiredTestClass().getName()).replace('$', '/'))
            .append('/')
            .append(safe(method.getName()));
    if (isOverloaded(method)) {
      name.append(
          Arrays.stream(method.getParameterTypes())
              .map(type -> "_" + safe(type.getSimpleName()))
              .collect(Collectors.joining()));
    }
    return name.append(numbers(context)).toString();
  }

  /** Returns a given name; with its number for a dynamic test, so that each has its own. */
  static String of(String given, ExtensionContext context) {
    return context.getTestMethod().isPresent() ? given : given + numbers(context);
  }

  private static String numbers(ExtensionContext context) {
    StringBuilder numbers = new StringBuilder();
    Matcher invocation = INVOCATION.matcher(context.getUniqueId());
    while (invocation.find()) {
      numbers.append('-').append(invocation.group(1));
    }
    return numbers.toString();
  }

  private static boolean isOverloaded(Method method) {
    return Arrays.stream(method.getDeclaringClass().getDeclaredMethods())
            .filter(other -> !other.isSynthetic() && other.getName().equals(method.getName()))
            .count()
        > 1;
  }

  private static String safe(String name) {
    return name.replaceAll("[^\\p{L}\\p{N}_.$-]", "_");
  }
}
