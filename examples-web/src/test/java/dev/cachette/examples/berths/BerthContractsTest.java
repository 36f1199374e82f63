// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.berths;

import dev.cachette.contract.Contracts;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicNode;
import org.junit.jupiter.api.TestFactory;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.web.server.LocalServerPort;

/** The berth service meets the contracts of its consumers. */
// snippet provider
@SpringBootTest(
    classes = BerthApplication.class,
    webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
class BerthContractsTest {

  @Autowired private Berths berths;

  @TestFactory
  Stream<DynamicNode> meetsItsContracts(@LocalServerPort int port) {
    return Contracts.in("../examples/src/test/contracts")
        .of("berths")
        .against("http://localhost:" + port)
        .given("a berth is free", state -> berths.add(state.text("berth")))
        .given("all berths are taken", state -> berths.clear())
        .header("authorization", "Bearer valid")
        .after(berths::clear)
        .tests();
  }
}
// end
