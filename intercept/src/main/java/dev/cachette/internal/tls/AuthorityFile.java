// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tls;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.KeyFactory;
import java.security.PrivateKey;
import java.security.cert.CertificateFactory;
import java.security.cert.X509Certificate;
import java.security.spec.PKCS8EncodedKeySpec;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A persistent certificate authority: its key and certificate as PEM (RFC 7468), readable only by
 * its owner.
 */
public final class AuthorityFile {

  private static final Duration VALIDITY = Duration.ofDays(730);
  private static final Duration ABOUT_TO_EXPIRE = Duration.ofDays(30);
  private static final Pattern BLOCK =
      Pattern.compile("-----BEGIN ([A-Z ]+)-----([^-]+)-----END \\1-----");

  private final Path file;

  /** Uses this file, which may not exist yet. */
  public AuthorityFile(Path file) {
    this.file = file.toAbsolutePath().normalize();
  }

  Authority readOrMake() {
    try {
      if (Files.exists(file)) {
        Authority kept = read();
        Instant end = kept.certificate().getNotAfter().toInstant();
        if (Instant.now().plus(ABOUT_TO_EXPIRE).isBefore(end)) {
          return kept;
        }
      }
      return make();
    } catch (IOException unusable) {
      throw new UncheckedIOException(
          "The certificate authority "
              + file
              + " cannot be read or created: "
              + unusable.getMessage(),
          unusable);
    }
  }

  private Authority read() throws IOException {
    String text = Files.readString(file, StandardCharsets.US_ASCII);
    try {
      PrivateKey key =
          KeyFactory.getInstance("EC")
              .generatePrivate(new PKCS8EncodedKeySpec(block(text, "PRIVATE KEY")));
      X509Certificate certificate =
          (X509Certificate)
              CertificateFactory.getInstance("X.509")
                  .generateCertificate(new ByteArrayInputStream(block(text, "CERTIFICATE")));
      return new Authority(key, certificate);
    } catch (GeneralSecurityException | IllegalArgumentException damaged) {
      throw new IOException(
          "it is damaged ("
              + damaged.getMessage()
              + "). Fix: delete it, and trust the new one; a file with a certificate only, which"
              + " signs for real services, is trusted with --trusted-ca",
          damaged);
    }
  }

  private static byte[] block(String text, String kind) {
    Matcher blocks = BLOCK.matcher(text);
    while (blocks.find()) {
      if (blocks.group(1).equals(kind)) {
        return Base64.getMimeDecoder().decode(blocks.group(2));
      }
    }
    throw new IllegalArgumentException("no " + kind + " in it");
  }

  private Authority make() throws IOException {
    Authority made = new Authority(VALIDITY);
    Files.createDirectories(file.getParent(), ownerOnly("rwx------"));
    Path temporary =
        Files.createTempFile(file.getParent(), ".authority", ".part", ownerOnly("rw-------"));
    try {
      Files.writeString(temporary, text(made), StandardCharsets.US_ASCII);
      boolean renewed = Files.exists(file);
      if (renewed) {
        Files.move(temporary, file, StandardCopyOption.REPLACE_EXISTING);
      } else {
        // If another process was faster, use its authority.
        Files.createLink(file, temporary);
      }
      return made;
    } catch (FileAlreadyExistsException madeMeanwhile) {
      return read();
    } finally {
      Files.deleteIfExists(temporary);
    }
  }

  private static String text(Authority authority) throws IOException {
    try {
      return pem("PRIVATE KEY", authority.key().getEncoded())
          + pem("CERTIFICATE", authority.certificate().getEncoded());
    } catch (GeneralSecurityException impossible) {
      throw new IOException(impossible);
    }
  }

  static String pem(String kind, byte[] bytes) {
    Base64.Encoder lines = Base64.getMimeEncoder(64, "\n".getBytes(StandardCharsets.US_ASCII));
    return "-----BEGIN "
        + kind
        + "-----\n"
        + lines.encodeToString(bytes)
        + "\n-----END "
        + kind
        + "-----\n";
  }

  private FileAttribute<?>[] ownerOnly(String permissions) {
    boolean posix = file.getFileSystem().supportedFileAttributeViews().contains("posix");
    return posix
        ? new FileAttribute<?>[] {
          PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString(permissions))
        }
        : new FileAttribute<?>[0];
  }
}
