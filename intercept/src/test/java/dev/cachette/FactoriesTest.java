// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.answer.Answers;
import dev.cachette.answer.Faults;
import dev.cachette.match.Bodies;
import dev.cachette.match.Conditions;
import dev.cachette.match.Values;
import java.lang.reflect.Method;
import java.lang.reflect.Modifier;
import java.util.Arrays;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** One static import has all factories, and no two of them clash. */
class FactoriesTest {

  @Test
  void itHasEveryFactoryMethod() {
    Set<String> all =
        Stream.of(Answers.class, Faults.class, Values.class, Bodies.class, Conditions.class)
            .flatMap(FactoriesTest::factories)
            .collect(Collectors.toCollection(TreeSet::new));

    Set<String> reached =
        Arrays.stream(Factories.class.getMethods())
            .filter(method -> Modifier.isStatic(method.getModifiers()))
            .map(FactoriesTest::signature)
            .collect(Collectors.toCollection(TreeSet::new));
    assertEquals(all, reached);
    assertTrue(all.size() > 100, all::toString);
  }

  private static Stream<String> factories(Class<?> type) {
    return Arrays.stream(type.getMethods())
        .filter(method -> Modifier.isStatic(method.getModifiers()))
        .map(FactoriesTest::signature);
  }

  private static String signature(Method method) {
    return method.getReturnType().getSimpleName()
        + " "
        + method.getName()
        + Arrays.toString(method.getGenericParameterTypes());
  }
}
