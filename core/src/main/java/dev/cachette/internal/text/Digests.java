// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.text;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** Short digests of texts that may be long. */
public final class Digests {

  private static final int BYTES = 16;

  private Digests() {}

  /** Returns the digest of a text. */
  public static String of(String text) {
    return of(text.getBytes(StandardCharsets.UTF_8));
  }

  /** Returns the digest of bytes. */
  public static String of(byte[] bytes) {
    try {
      byte[] hash = MessageDigest.getInstance("SHA-256").digest(bytes);
      return HexFormat.of().formatHex(hash, 0, BYTES);
    } catch (NoSuchAlgorithmException impossible) {
      throw new IllegalStateException(impossible);
    }
  }
}
