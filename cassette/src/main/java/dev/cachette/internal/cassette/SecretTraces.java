// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;

/**
 * Tells quickly that a text has no trace of any known secret, however many there are: one pass over
 * the text looks up each sequence of eight characters. The traces of a secret are its forms, and
 * what Base64 makes of them wherever in the encoded bytes they begin.
 */
final class SecretTraces {

  private static final int LENGTH = 8;
  private static final int FILTER_BITS = 16;
  private static final long SPREAD = 0x9E3779B97F4A7C15L;
  private static final int BITS_PER_BASE64 = 6;

  /** Base64 in Base64 is looked for, but no deeper. */
  private static final int DEEPEST = 2;

  private final long[] filter = new long[1 << FILTER_BITS - 6];
  private final LongSet beginnings = new LongSet();

  /** Traces that are too short to be looked up. */
  private final List<String> shortOnes = new ArrayList<>();

  /** Adds a form of a secret. */
  void add(String form) {
    add(form, DEEPEST);
  }

  private void add(String form, int depth) {
    addTrace(form);
    if (depth == 0) {
      return;
    }
    byte[] bytes = form.getBytes(StandardCharsets.UTF_8);
    for (int before = 0; before < 3; before++) {
      String core = base64(bytes, before);
      if (core.length() > 1) {
        add(core, depth - 1);
        String forUrls = core.replace('+', '-').replace('/', '_');
        if (!forUrls.equals(core)) {
          add(forUrls, depth - 1);
        }
      }
    }
  }

  /** Returns the characters that encode nothing but these bytes, after so many other ones. */
  private static String base64(byte[] bytes, int before) {
    byte[] shifted = new byte[before + bytes.length];
    System.arraycopy(bytes, 0, shifted, before, bytes.length);
    int first = (before * Byte.SIZE + BITS_PER_BASE64 - 1) / BITS_PER_BASE64;
    int end = shifted.length * Byte.SIZE / BITS_PER_BASE64;
    return Base64.getEncoder().encodeToString(shifted).substring(first, Math.max(first, end));
  }

  private void addTrace(String trace) {
    if (trace.length() < LENGTH) {
      if (!shortOnes.contains(trace)) {
        shortOnes.add(trace);
      }
      return;
    }
    long packed = 0;
    for (int at = 0; at < LENGTH; at++) {
      packed = next(packed, trace.charAt(at));
    }
    beginnings.add(packed);
    int bit = bit(packed);
    filter[bit >> 6] |= 1L << bit;
  }

  /** Returns false if no trace is in a text. */
  boolean mayBeIn(String text) {
    long packed = 0;
    for (int at = 0; at < text.length(); at++) {
      packed = next(packed, text.charAt(at));
      int bit = bit(packed);
      if ((filter[bit >> 6] & 1L << bit) != 0 && at >= LENGTH - 1 && beginnings.contains(packed)) {
        return true;
      }
    }
    for (String trace : shortOnes) {
      if (text.contains(trace)) {
        return true;
      }
    }
    return false;
  }

  /** The low bytes of the last eight characters. */
  private static long next(long packed, char c) {
    return packed << Byte.SIZE | c & 0xff;
  }

  private static int bit(long packed) {
    return (int) (packed * SPREAD >>> Long.SIZE - FILTER_BITS);
  }
}
