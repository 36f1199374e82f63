// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.web;

import dev.cachette.Cachette;
import dev.cachette.cases.Cases;
import dev.cachette.junit.InterceptHttp;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DynamicNode;
import org.junit.jupiter.api.TestFactory;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.web.server.LocalServerPort;

/** The harbour desk does what it did when capture.sh has captured its calls. */
// snippet cases
@InterceptHttp
@SpringBootTest(webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
class HarbourCasesTest {

  @BeforeAll
  static void atItsStart(Cachette net) {
    Cases.in("src/test/cases").answerBackground(net);
  }

  @TestFactory
  Stream<DynamicNode> cases(@LocalServerPort int port) {
    return Cases.in("src/test/cases").against("http://localhost:" + port).tests();
  }
}
// end
