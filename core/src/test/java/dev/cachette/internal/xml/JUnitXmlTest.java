// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.xml;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.internal.xml.JUnitXml.Problem;
import dev.cachette.internal.xml.JUnitXml.Result;
import dev.cachette.internal.xml.JUnitXml.Suite;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** Results in the XML of JUnit. */
class JUnitXmlTest {

  @Test
  void suitesHaveTheirCounts() {
    Duration took = Duration.ofMillis(1_500);
    String xml =
        JUnitXml.of(
            List.of(
                new Suite(
                    "the \"harbour\"",
                    List.of(
                        new Result("good", took, Optional.empty()),
                        new Result(
                            "bad", took, Optional.of(new Problem(true, "a < b", "a <\u0001 b"))),
                        new Result("gone", took, Optional.of(new Problem(false, "gone", "gone"))))),
                new Suite("empty", List.of())));

    assertEquals(
        """
        <?xml version="1.0" encoding="UTF-8"?>
        <testsuites>
          <testsuite name="the &quot;harbour&quot;" tests="3" failures="1" errors="1" skipped="0"\
         time="4.500">
            <testcase name="good" classname="the &quot;harbour&quot;" time="1.500"></testcase>
            <testcase name="bad" classname="the &quot;harbour&quot;" time="1.500">
              <failure message="a &lt; b">a &lt;\uFFFD b</failure>
            </testcase>
            <testcase name="gone" classname="the &quot;harbour&quot;" time="1.500">
              <error message="gone">gone</error>
            </testcase>
          </testsuite>
          <testsuite name="empty" tests="0" failures="0" errors="0" skipped="0" time="0.000">
          </testsuite>
        </testsuites>
        """,
        xml);
  }
}
