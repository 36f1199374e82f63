// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.login;

import java.util.Map;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.security.oauth2.client.OAuth2AuthorizedClient;
import org.springframework.security.oauth2.client.annotation.RegisteredOAuth2AuthorizedClient;
import org.springframework.security.oauth2.core.oidc.user.OidcUser;
import org.springframework.security.oauth2.jwt.Jwt;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.client.RestClient;

/** The desk, for people and for machines. */
@RestController
class DeskController {

  private final RestClient berths;

  DeskController(RestClient berths) {
    this.berths = berths;
  }

  /** The desk of a person, with their bookings. */
  @GetMapping("/desk")
  Map<String, Object> desk(
      @AuthenticationPrincipal OidcUser user,
      @RegisteredOAuth2AuthorizedClient("harbour") OAuth2AuthorizedClient client) {
    String bookings =
        berths
            .get()
            .uri("/v1/bookings")
            .headers(it -> it.setBearerAuth(client.getAccessToken().getTokenValue()))
            .retrieve()
            .body(String.class);
    return Map.of("name", user.getFullName(), "email", user.getEmail(), "bookings", bookings);
  }

  /** The moorings, for a machine. */
  @GetMapping("/v1/moorings")
  Map<String, Object> moorings(@AuthenticationPrincipal Jwt token) {
    return Map.of("moorings", 12, "for", token.getSubject());
  }
}
