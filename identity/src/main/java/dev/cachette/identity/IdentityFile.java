// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity;

import dev.cachette.internal.identity.file.IdentityFileReader;
import dev.cachette.internal.misuse.Refusals;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.CharacterCodingException;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * A file that declares an identity provider, its users and its clients, in YAML 1.2 or JSON:
 *
 * <pre>
 * issuer: https://id.example
 * users:
 *   mara: { email: mara@marrow-bay.example, groups: [pilots] }
 * clients:
 *   harbour-desk: { secret: s3cret, redirectUris: ["https://desk.example/signed-in"] }
 * </pre>
 *
 * <p>The guide, and the JSON Schema {@code cachette-identity.schema.json} at the root of this jar,
 * describe the format. {@link IdentityProvider#load} opens the provider. Immutable.
 *
 * @param name the file, as given
 * @param text its content, which was checked
 * @param issuer the issuer that it declares
 */
public record IdentityFile(String name, String text, String issuer) {

  /**
   * Reads and checks a file.
   *
   * @throws dev.cachette.stubfile.StubFileException if it has problems, with all of them
   * @throws UncheckedIOException if it cannot be read
   */
  public static IdentityFile read(Path file) {
    String text = text(Refusals.given("read(file)", file));
    return new IdentityFile(
        file.toString(), text, IdentityFileReader.read(file.toString(), text).issuer());
  }

  /**
   * Returns true if a file is one: it has the key {@code issuer}.
   *
   * @throws UncheckedIOException if it cannot be read
   */
  public static boolean isOne(Path file) {
    try {
      return IdentityFileReader.isOne(text(Refusals.given("isOne(file)", file)));
    } catch (UncheckedIOException unreadable) {
      if (unreadable.getCause() instanceof CharacterCodingException) {
        return false;
      }
      throw unreadable;
    }
  }

  private static String text(Path file) {
    try {
      return Files.readString(file);
    } catch (IOException unreadable) {
      throw new UncheckedIOException(unreadable);
    }
  }
}
