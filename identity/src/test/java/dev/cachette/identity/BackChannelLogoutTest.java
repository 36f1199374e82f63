// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.nimbusds.jose.crypto.RSASSAVerifier;
import com.nimbusds.jose.jwk.JWKSet;
import com.nimbusds.jwt.SignedJWT;
import com.sun.net.httpserver.HttpServer;
import dev.cachette.Cachette;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.Test;

/** Clients are told that a user has signed out. */
class BackChannelLogoutTest {

  @Test
  void clientsGetLogoutTokens() throws Exception {
    List<String> received = new CopyOnWriteArrayList<>();
    HttpServer desk =
        HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    desk.createContext(
        "/signed-out",
        exchange -> {
          received.add(new String(exchange.getRequestBody().readAllBytes()));
          exchange.sendResponseHeaders(204, -1);
          exchange.close();
        });
    desk.start();
    TestClient client = new TestClient();
    try (Cachette net = Cachette.open()) {
      IdentityProvider id = IdentityProvider.open(net, TestClient.ISSUER);
      id.user("mara");
      id.client("harbour-desk")
          .secret("s3cret-of-the-desk")
          .backChannelLogout("http://localhost:" + desk.getAddress().getPort() + "/signed-out");

      id.signOut("mara");
      String hint = client.tokens().path("id_token").asText();
      client.get("/logout", Map.of("id_token_hint", hint));

      assertEquals(2, received.size());
      SignedJWT token = SignedJWT.parse(received.get(0).replaceFirst("logout_token=", ""));
      assertEquals("logout+jwt", token.getHeader().getType().toString());
      assertEquals("mara", token.getJWTClaimsSet().getSubject());
      assertTrue(token.getJWTClaimsSet().getClaim("events").toString().contains("logout"));
      JWKSet keys = JWKSet.parse(client.get("/jwks", Map.of()).body());
      assertTrue(token.verify(new RSASSAVerifier(keys.getKeys().get(0).toRSAKey())));
    } finally {
      desk.stop(0);
    }
  }

  @Test
  void absentClientsAreNamed() {
    try (Cachette net = Cachette.open()) {
      IdentityProvider id = IdentityProvider.open(net, TestClient.ISSUER);
      id.user("mara");
      id.client("harbour-desk").backChannelLogout("http://localhost:9/signed-out");
      String message =
          assertThrows(IllegalStateException.class, () -> id.signOut("mara")).getMessage();
      assertTrue(message.contains("http://localhost:9/signed-out"), message);
    }
  }
}
