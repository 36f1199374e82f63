// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.cachette.Cachette;
import dev.cachette.examples.harbour.HarbourException;
import dev.cachette.examples.harbour.Identity;
import dev.cachette.junit.InterceptHttp;
import org.junit.jupiter.api.Test;

/** Forms: fields of a URL-encoded body. */
@InterceptHttp
class IdentityTest {

  private final Identity identity = new Identity();

  @Test
  void getsATokenForTheDesk(Cachette net) {
    net.stub("POST https://id.example/token").answer(problem(401, "Unknown desk"));
    net.stub("POST https://id.example/token")
        .form("grant_type", "client_credentials")
        .form("client_id", "north desk")
        .answer(json("{\"access_token\": \"t-1\", \"token_type\": \"Bearer\"}"));

    assertEquals("t-1", identity.token("north desk", "s & p"));
    assertThrows(HarbourException.class, () -> identity.token("south desk", "s"));

    net.calls().form("client_secret", "s & p").assertCount(1);
  }
}
