// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.login;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.google.auth.oauth2.ServiceAccountCredentials;
import com.nimbusds.jose.jwk.JWKSet;
import com.nimbusds.jose.jwk.RSAKey;
import com.nimbusds.jose.jwk.gen.RSAKeyGenerator;
import com.nimbusds.jwt.SignedJWT;
import dev.cachette.Cachette;
import dev.cachette.identity.IdentityProvider;
import dev.cachette.junit.InterceptHttp;
import java.io.IOException;
import java.util.List;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/**
 * Libraries that know the URLs of their vendor's provider. They need no other configuration: the
 * provider of the test is at those URLs.
 */
@InterceptHttp
class VendorLibrariesTest {

  private static RSAKey key;

  @BeforeAll
  static void declare(Cachette net) throws Exception {
    key = new RSAKeyGenerator(2048).keyID("k1").generate();
    String endpoint = robot(key).getTokenServerUri().toString();
    IdentityProvider id = IdentityProvider.open(net, endpoint.replaceFirst("/token$", ""));
    id.client("tide-robot@marrow-bay.example").publicKeys(new JWKSet(key).toString());
  }

  private static ServiceAccountCredentials robot(RSAKey signing) throws Exception {
    return ServiceAccountCredentials.newBuilder()
        .setClientEmail("tide-robot@marrow-bay.example")
        .setPrivateKey(signing.toPrivateKey())
        .setPrivateKeyId(signing.getKeyID())
        .setScopes(List.of("tides:read"))
        .build();
  }

  @Test
  void serviceAccountsSignAssertions() throws Exception {
    SignedJWT token = SignedJWT.parse(robot(key).refreshAccessToken().getTokenValue());
    assertEquals("tide-robot@marrow-bay.example", token.getJWTClaimsSet().getSubject());
  }

  @Test
  void serviceAccountsAreRefusedWithAnotherKey() throws Exception {
    RSAKey another = new RSAKeyGenerator(2048).keyID("k1").generate();
    IOException refused =
        assertThrows(IOException.class, () -> robot(another).refreshAccessToken());
    assertTrue(String.valueOf(refused.getCause()).contains("invalid_grant"), refused.toString());
  }
}
