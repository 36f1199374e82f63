// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.harbour;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;

/** Gets a token for the desk, with a form (OAuth 2, client credentials). */
public final class Identity {

  private final Http http = new Http();

  /**
   * Returns a token.
   *
   * @throws HarbourException if the desk is unknown
   */
  public String token(String desk, String secret) {
    String form =
        "grant_type=client_credentials&client_id="
            + URLEncoder.encode(desk, StandardCharsets.UTF_8)
            + "&client_secret="
            + URLEncoder.encode(secret, StandardCharsets.UTF_8);
    String response =
        http.post("https://id.example/token", "application/x-www-form-urlencoded", form, 200);
    try {
      return new ObjectMapper().readTree(response).path("access_token").asText();
    } catch (JsonProcessingException malformed) {
      throw new HarbourException("the response of the identity service cannot be read", malformed);
    }
  }
}
