// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.harbour;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Base64;
import java.util.UUID;

/**
 * Signs a person in, as a browser would: OAuth 2 authorization code (RFC 6749) with PKCE (RFC
 * 7636).
 */
public final class SignIn {

  private static final String BACK = "https://desk.example/signed-in";

  private final HttpClient browser = HttpClient.newHttpClient();
  private final Http http = new Http();

  /**
   * Returns a token for the person at the desk.
   *
   * @throws HarbourException if the identity service issues none
   */
  public String token() {
    String state = UUID.randomUUID().toString();
    String verifier = UUID.randomUUID() + "-" + UUID.randomUUID();
    String location =
        redirected(
            "https://id.example/authorize?response_type=code&client_id=desk&redirect_uri="
                + BACK
                + "&state="
                + state
                + "&code_challenge_method=S256&code_challenge="
                + challenge(verifier));
    String code = location.replaceFirst(".*[?&]code=([^&]*).*", "$1");
    String form = "grant_type=authorization_code&code=" + code + "&code_verifier=" + verifier;
    String answer =
        http.post("https://id.example/token", "application/x-www-form-urlencoded", form, 200);
    try {
      return new ObjectMapper().readTree(answer).path("access_token").asText();
    } catch (JsonProcessingException malformed) {
      throw new HarbourException("the response of the identity service cannot be read", malformed);
    }
  }

  private String redirected(String url) {
    try {
      HttpResponse<Void> response =
          browser.send(
              HttpRequest.newBuilder(URI.create(url)).build(),
              HttpResponse.BodyHandlers.discarding());
      return response
          .headers()
          .firstValue("location")
          .orElseThrow(() -> new HarbourException("id.example answered " + response.statusCode()));
    } catch (IOException failed) {
      throw new HarbourException("the identity service cannot be reached", failed);
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
      throw new HarbourException("interrupted", interrupted);
    }
  }

  private static String challenge(String verifier) {
    try {
      byte[] hash =
          MessageDigest.getInstance("SHA-256").digest(verifier.getBytes(StandardCharsets.US_ASCII));
      return Base64.getUrlEncoder().withoutPadding().encodeToString(hash);
    } catch (NoSuchAlgorithmException impossible) {
      throw new IllegalStateException(impossible);
    }
  }
}
