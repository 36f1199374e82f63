// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.login;

import dev.cachette.Cachette;
import dev.cachette.cases.Cases;
import dev.cachette.identity.IdentityProvider;
import dev.cachette.junit.InterceptHttp;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DynamicNode;
import org.junit.jupiter.api.TestFactory;
import org.springframework.boot.web.servlet.context.ServletWebServerApplicationContext;

/** A user signs in like the one that capture.sh has captured, with tokens of today. */
@InterceptHttp
class DeskCasesTest {

  private static ServletWebServerApplicationContext desk;

  @BeforeAll
  static void start(Cachette net) {
    IdentityProvider id = IdentityProvider.open(net, "https://id.example/realms/harbour");
    desk = RunningDesk.at(id);
  }

  @AfterAll
  static void stop() {
    desk.close();
  }

  // snippet cases
  @TestFactory
  Stream<DynamicNode> signIn() {
    return Cases.in("src/test/cases").against(url()).tests();
  }

  // end

  private static String url() {
    return "http://localhost:" + desk.getWebServer().getPort();
  }
}
