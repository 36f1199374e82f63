// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tls;

import java.io.ByteArrayOutputStream;
import java.math.BigInteger;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;

/**
 * Writes the few DER elements (ITU-T X.690) of a certificate. A general crypto library costs about
 * a second at first use, this a few milliseconds.
 */
final class Der {

  private static final DateTimeFormatter GENERALIZED_TIME =
      DateTimeFormatter.ofPattern("yyyyMMddHHmmss'Z'", Locale.ROOT).withZone(ZoneOffset.UTC);

  private Der() {}

  static byte[] sequence(byte[]... elements) {
    return element(0x30, join(elements));
  }

  static byte[] set(byte[]... elements) {
    return element(0x31, join(elements));
  }

  static byte[] integer(BigInteger value) {
    return element(0x02, value.toByteArray());
  }

  static byte[] bool(boolean value) {
    return element(0x01, new byte[] {(byte) (value ? 0xff : 0)});
  }

  static byte[] utf8(String text) {
    return element(0x0c, text.getBytes(StandardCharsets.UTF_8));
  }

  static byte[] time(Instant instant) {
    return element(0x18, GENERALIZED_TIME.format(instant).getBytes(StandardCharsets.US_ASCII));
  }

  static byte[] octets(byte[] content) {
    return element(0x04, content);
  }

  static byte[] bits(byte[] content) {
    return element(0x03, join(new byte[] {0}, content));
  }

  /** Returns a context-specific element: constructed, and explicitly tagged. */
  static byte[] explicit(int tag, byte[] content) {
    return element(0xa0 | tag, content);
  }

  /** Returns a context-specific element: primitive, and implicitly tagged. */
  static byte[] implicit(int tag, byte[] content) {
    return element(0x80 | tag, content);
  }

  /** Returns an object identifier, given in dotted form: {@code 2.5.29.17}. */
  static byte[] oid(String dotted) {
    String[] arcs = dotted.split("\\.");
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    base128(out, Integer.parseInt(arcs[0]) * 40 + Integer.parseInt(arcs[1]));
    for (int at = 2; at < arcs.length; at++) {
      base128(out, Integer.parseInt(arcs[at]));
    }
    return element(0x06, out.toByteArray());
  }

  private static void base128(ByteArrayOutputStream out, int value) {
    int groups = Math.max(1, (38 - Integer.numberOfLeadingZeros(value)) / 7);
    for (int at = groups - 1; at >= 0; at--) {
      out.write((value >> 7 * at & 0x7f) | (at > 0 ? 0x80 : 0));
    }
  }

  private static byte[] element(int tag, byte[] content) {
    ByteArrayOutputStream out = new ByteArrayOutputStream(content.length + 6);
    out.write(tag);
    if (content.length < 0x80) {
      out.write(content.length);
    } else {
      int bytes = (39 - Integer.numberOfLeadingZeros(content.length)) / 8;
      out.write(0x80 | bytes);
      for (int at = bytes - 1; at >= 0; at--) {
        out.write(content.length >> 8 * at);
      }
    }
    out.writeBytes(content);
    return out.toByteArray();
  }

  private static byte[] join(byte[]... parts) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    for (byte[] part : parts) {
      out.writeBytes(part);
    }
    return out.toByteArray();
  }
}
