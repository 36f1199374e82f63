// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.Cachette;
import dev.cachette.http.Uri;
import dev.cachette.identity.IdentityFile;
import dev.cachette.identity.IdentityProvider;
import dev.cachette.tooling.FileKind;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;

/** The options of an identity provider. */
final class IdentityOptions {

  @Option(
      names = "--identity",
      paramLabel = "URL|FILE",
      description =
          "Stand in for an OpenID Connect provider with this issuer, or with the issuer, users and"
              + " clients of this file (.yaml, .yml, .json). For browsers, the issuer is the URL"
              + " of this server: http://localhost:PORT.")
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

  /** Once it is read. */
  private @Nullable IdentityFile file;

  boolean isWanted() {
    return issuer != null;
  }

  /** Returns the origin of the provider; null if there is none. */
  @Nullable String origin() {
    return isWanted() ? Uri.parse(file().map(IdentityFile::issuer).orElse(issuer)).origin() : null;
  }

  /** Returns the file, if it is one. */
  private Optional<IdentityFile> file() {
    if (file == null && issuer != null && FileKind.named(Path.of(issuer)) == FileKind.STUBS) {
      file = IdentityFile.read(Path.of(issuer));
    }
    return Optional.ofNullable(file);
  }

  /** Checks that they fit together. */
  void check() {
    if (issuer == null && (page || !users.isEmpty())) {
      throw new WrongUsage(
          "--user and --login-page need an identity provider. Fix: add --identity URL.");
    }
    boolean isFile = file().isPresent();
    if (issuer != null && !isFile && !isIssuer(issuer)) {
      throw new WrongUsage(
          "--identity needs an http or https URL without a query, or a file (.yaml, .yml, .json),"
              + " not \""
              + issuer
              + "\".");
    }
    if (issuer != null && !isFile && users.isEmpty()) {
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
    IdentityProvider id =
        file()
            .map(it -> IdentityProvider.load(net, it))
            .orElseGet(() -> IdentityProvider.open(net, issuer));
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
