// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.login;

import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.security.config.Customizer;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.oauth2.client.registration.ClientRegistrationRepository;
import org.springframework.security.oauth2.client.web.DefaultOAuth2AuthorizationRequestResolver;
import org.springframework.security.oauth2.client.web.OAuth2AuthorizationRequestCustomizers;
import org.springframework.security.web.SecurityFilterChain;

/** People sign in at the identity provider; machines come with a token. */
@Configuration
class DeskSecurity {

  @Bean
  @Order(1)
  SecurityFilterChain machines(HttpSecurity http) throws Exception {
    return http.securityMatcher("/v1/**")
        .authorizeHttpRequests(all -> all.anyRequest().hasAuthority("SCOPE_moorings:read"))
        .oauth2ResourceServer(it -> it.jwt(Customizer.withDefaults()))
        .build();
  }

  @Bean
  @Order(2)
  SecurityFilterChain people(HttpSecurity http, ClientRegistrationRepository clients)
      throws Exception {
    DefaultOAuth2AuthorizationRequestResolver resolver =
        new DefaultOAuth2AuthorizationRequestResolver(clients, "/oauth2/authorization");
    resolver.setAuthorizationRequestCustomizer(OAuth2AuthorizationRequestCustomizers.withPkce());
    return http.authorizeHttpRequests(all -> all.anyRequest().authenticated())
        .oauth2Login(
            it -> it.authorizationEndpoint(at -> at.authorizationRequestResolver(resolver)))
        .build();
  }
}
