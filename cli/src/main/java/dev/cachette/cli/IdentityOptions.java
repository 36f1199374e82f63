// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.Cachette;
import dev.cachette.http.Uri;
import dev.cachette.identity.IdentityProvider;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;

/** The options of an identity provider. */
final class IdentityOptions {

  @Option(
      names = "--identity",
      paramLabel = "URL",
      description =
          "Stand in for an OpenID Connect provider with this issuer. For browsers, it is the URL of"
              + " this server: http://localhost:PORT.")
  private @Nullable String issuer;

  @Option(
      names = "--user",
      paramLabel = "NAME",
      description =
          "A user of the identity provider; can be repeated. The first one is signed in at once,"
              + " without a page.")
  private List<String> users = List.of();

  @Option(names = "--login-page", description = "Let people choose on a page which user they are.")
  private boolean page;

  boolean isWanted() {
    return issuer != null;
  }

  /** Returns the origin of the provider; null if there is none. */
  @Nullable String origin() {
    return issuer == null ? null : Uri.parse(issuer).origin();
  }

  /** Checks that they fit together. */
  void check() {
    if (issuer == null && (page || !users.isEmpty())) {
      throw new WrongUsage(
          "--user and --login-page need an identity provider. Fix: add --identity URL.");
    }
    if (issuer != null && !isIssuer(issuer)) {
      throw new WrongUsage(
          "--identity needs an http or https URL without a query, not \"" + issuer + "\".");
    }
    if (issuer != null && users.isEmpty()) {
      throw new WrongUsage("nobody can sign in at " + issuer + ". Fix: add --user NAME.");
    }
  }

  private static boolean isIssuer(String text) {
    try {
      Uri url = Uri.parse(text);
      return Uri.parseOrigin(url.origin()).port() > 0 && url.rawQuery().isEmpty();
    } catch (IllegalArgumentException malformed) {
      return false;
    }
  }

  /** Declares the provider, if it is wanted. */
  void serveBy(Cachette net) {
    if (issuer == null) {
      return;
    }
    IdentityProvider id = IdentityProvider.open(net, issuer);
    for (String user : users) {
      id.user(user)
          .claim("name", user)
          .claim("email", user + "@users.example")
          .claim("email_verified", true);
    }
    if (page) {
      id.withLoginPage();
    }
  }
}
