// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.content;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Random;
import java.util.zip.Deflater;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Content encodings, of harmless and of hostile bytes. */
class ContentEncodingTest {

  private static final int MEBIBYTE = 1024 * 1024;

  /** Returns zeros in this encoding, a thousandth of their size. */
  private static byte[] bomb(ContentEncoding encoding, int mebibytes) throws IOException {
    ByteArrayOutputStream coded = new ByteArrayOutputStream();
    try (OutputStream out =
        encoding == ContentEncoding.GZIP
            ? new GZIPOutputStream(coded)
            : new DeflaterOutputStream(coded)) {
      byte[] zeros = new byte[MEBIBYTE];
      for (int at = 0; at < mebibytes; at++) {
        out.write(zeros);
      }
    }
    return coded.toByteArray();
  }

  @ParameterizedTest
  @EnumSource(ContentEncoding.class)
  void aBombIsRefusedBeforeItIsHeld(ContentEncoding encoding) throws IOException {
    byte[] coded = bomb(encoding, 257);
    String why = assertThrows(IOException.class, () -> encoding.decode(coded)).getMessage();
    assertTrue(why.startsWith("more than 268435456 bytes when decoded"), why);
  }

  @ParameterizedTest
  @EnumSource(ContentEncoding.class)
  void whatWasEncodedIsDecoded(ContentEncoding encoding) throws IOException {
    Random random = new Random(18);
    for (int size : new int[] {0, 1, 100, 300_000}) {
      byte[] plain = new byte[size];
      random.nextBytes(plain);
      Arrays.fill(plain, 0, size / 2, (byte) 'x');
      assertArrayEquals(plain, encoding.decode(encoding.encode(plain)));
    }
  }

  /** As some servers send it, without the header of zlib. */
  @Test
  void rawDeflateIsDecoded() throws IOException {
    byte[] plain = "high at 04:10".repeat(100).getBytes(StandardCharsets.UTF_8);
    ByteArrayOutputStream coded = new ByteArrayOutputStream();
    try (OutputStream out =
        new DeflaterOutputStream(coded, new Deflater(Deflater.DEFAULT_COMPRESSION, true))) {
      out.write(plain);
    }
    assertArrayEquals(plain, ContentEncoding.DEFLATE.decode(coded.toByteArray()));
  }
}
