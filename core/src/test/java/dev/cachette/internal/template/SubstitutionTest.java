// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.template;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SubstitutionTest {

  private static final Map<String, String> VALUES =
      Map.of("vessel", "Gull", "dollar", "$", "code", "${vessel}", "empty", "");

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      textBlock =
          """
          ``                        | ``
          no expression             | no expression
          ${vessel}                 | Gull
          <${vessel}${vessel}>      | <GullGull>
          ${code}                   | ${vessel}
          ${empty}                  | ``
          ${empty:-Tern}            | ``
          ${berth:-B-7}             | B-7
          ${berth:-}                | ``
          ${berth:-a:-b}            | a:-b
          ${berth:-${vessel}        | ${vessel
          $${vessel}                | ${vessel}
          $$${vessel}               | $${vessel}
          $${vessel}${vessel}       | ${vessel}Gull
          ${dollar}{vessel}         | ${vessel}
          ${dollar}${vessel}        | $Gull
          $                         | $
          $$                        | $$
          {vessel}                  | {vessel}
          ${vessel                  | ${vessel
          $${vessel                 | ${vessel
          ${vessel}}                | Gull}
          }${vessel}{               | }Gull{
          """)
  void expressionsAreReplaced(String text, String filled) {
    assertEquals(filled, Substitution.in(text, name -> Optional.ofNullable(VALUES.get(name))));
  }

  @Test
  void withoutAValueItFails() {
    Substitution.NoValue failure =
        assertThrows(
            Substitution.NoValue.class,
            () ->
                Substitution.in(
                    "${vessel} at ${berth}",
                    name -> Optional.of(name).filter(VALUES::containsKey)));

    assertEquals("berth", failure.getMessage());
  }
}
