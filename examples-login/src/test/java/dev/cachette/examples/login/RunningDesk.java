// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.login;

import dev.cachette.identity.IdentityProvider;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.web.servlet.context.ServletWebServerApplicationContext;

/** The desk, configured for a provider as it is in production. */
final class RunningDesk {

  private RunningDesk() {}

  static ServletWebServerApplicationContext at(IdentityProvider id) {
    return (ServletWebServerApplicationContext)
        SpringApplication.run(
            DeskApplication.class,
            "--server.port=0",
            "--spring.main.banner-mode=off",
            "--spring.security.oauth2.client.registration.harbour.client-id=harbour-desk",
            "--spring.security.oauth2.client.registration.harbour.client-secret="
                + "secret-of-the-desk",
            "--spring.security.oauth2.client.registration.harbour.scope=openid,profile,email",
            "--spring.security.oauth2.client.provider.harbour.issuer-uri=" + id.issuer(),
            "--spring.security.oauth2.resourceserver.jwt.issuer-uri=" + id.issuer());
  }
}
