// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity.file;

import dev.cachette.identity.option.IdentityRule;
import dev.cachette.identity.option.SigningAlgorithm;
import dev.cachette.internal.fields.Key;
import dev.cachette.internal.fields.Keys;
import dev.cachette.internal.fields.Shape;
import java.util.List;
import java.util.stream.Stream;

/** The keys of a file that declares an identity provider. */
final class IdentityKeys {

  static final List<String> ALGORITHMS =
      Stream.of(SigningAlgorithm.values()).map(SigningAlgorithm::toString).toList();

  static final List<String> RULES = Stream.of(IdentityRule.values()).map(Enum::name).toList();

  static final Keys<Void> CLIENT =
      Keys.of(
          Key.of("secret", "Its secret: client_secret_basic, client_secret_post.", Shape.SCALAR),
          Key.of(
              "publicKeys",
              "Its public keys for private_key_jwt, a JSON Web Key Set (RFC 7517).",
              Shape.OBJECT),
          Key.of(
              "redirectUris",
              "Its redirect URIs; without any, each is accepted.",
              Shape.list(Shape.TEXT)),
          Key.of(
              "scopes",
              "The scopes that it can have; without any, each is granted.",
              Shape.list(Shape.TEXT)),
          Key.of(
              "audience",
              "The audience of its access tokens; by default its identifier.",
              Shape.list(Shape.TEXT)),
          Key.of("backChannelLogout", "The URL that receives its logout tokens.", Shape.TEXT));

  static final Keys<Void> LIFETIMES =
      Keys.of(
          Key.of("code", "An authorization code; 1m by default.", Shape.DURATION),
          Key.of("accessToken", "An access token; 5m by default.", Shape.DURATION),
          Key.of("idToken", "An ID token; 5m by default.", Shape.DURATION),
          Key.of("refreshToken", "A refresh token; 1d by default.", Shape.DURATION));

  static final Keys<Void> ALL =
      Keys.of(
          Key.of("$schema", "This schema, for editors.", Shape.TEXT),
          Key.of(
              "issuer", "The URL of the provider: https://id.example/realms/harbour.", Shape.TEXT),
          Key.of(
              "users",
              "The users by name, with their claims. The first one signs in, if no other is"
                  + " asked for.",
              Shape.members(Shape.types("object", "null"))),
          Key.of(
              "clients",
              "The clients by identifier; without any, each is accepted.",
              Shape.members(Shape.either(Shape.mapping(CLIENT), Shape.types("null")))),
          Key.of(
              "lifetimes", "How long what the provider issues is valid.", Shape.mapping(LIFETIMES)),
          Key.of(
              "signedWith",
              "The algorithm of signatures; RS256 by default.",
              Shape.choice(ALGORITHMS)),
          Key.of(
              "loginPage",
              "Whether users choose on a page who they are; by default the first one is signed in"
                  + " at once.",
              Shape.FLAG),
          Key.of(
              "allow",
              "Rules that clients may break: they get the error, and nothing is reported.",
              Shape.list(Shape.choice(RULES))));

  private IdentityKeys() {}
}
