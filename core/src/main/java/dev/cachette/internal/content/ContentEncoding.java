// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.content;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.PushbackInputStream;
import java.io.UncheckedIOException;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import java.util.zip.Deflater;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import java.util.zip.Inflater;
import java.util.zip.InflaterInputStream;

/** The content encodings of RFC 9110 section 8.4.1 that the JDK supports. */
public enum ContentEncoding {
  /** RFC 1952. */
  GZIP,
  /** The zlib format (RFC 1950); also read without its header, as some clients send it. */
  DEFLATE;

  /** A larger decoded body is assumed to be a mistake or an attack. */
  private static final int LARGEST = 256 * 1024 * 1024;

  /** Fewer encoded bytes cannot become too many: deflate makes at most 1,032 of one. */
  private static final int HARMLESS = LARGEST / 1032;

  private static final int BUFFER = 8 * 1024;

  /** Returns the encoding with this name, ignoring case; empty if it is not supported. */
  public static Optional<ContentEncoding> named(String name) {
    String lower = name.strip().toLowerCase(Locale.ROOT);
    return switch (lower) {
      case "gzip", "x-gzip" -> Optional.of(GZIP);
      case "deflate" -> Optional.of(DEFLATE);
      default -> Optional.empty();
    };
  }

  /** Returns the names in fields of {@code content-encoding}, in the order of application. */
  public static List<String> namesIn(List<String> fields) {
    return fields.stream()
        .flatMap(field -> Stream.of(field.split(",")))
        .map(String::strip)
        .filter(name -> !name.isEmpty() && !name.equalsIgnoreCase("identity"))
        .toList();
  }

  /** Returns its name in headers. */
  public String token() {
    return name().toLowerCase(Locale.ROOT);
  }

  /** Encodes bytes. */
  public byte[] encode(byte[] plain) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream(plain.length / 2 + 32);
    try (OutputStream out =
        this == GZIP ? new GZIPOutputStream(bytes) : new DeflaterOutputStream(bytes)) {
      out.write(plain);
    } catch (IOException impossible) {
      throw new UncheckedIOException(impossible);
    }
    return bytes.toByteArray();
  }

  /**
   * Decodes bytes.
   *
   * @throws IOException if they are not in this encoding
   */
  public byte[] decode(byte[] coded) throws IOException {
    if (coded.length > HARMLESS && exceeds(coded, List.of(token()), LARGEST)) {
      // Found out without holding them.
      throw new IOException("more than " + LARGEST + " bytes when decoded");
    }
    if (this == GZIP) {
      return read(new GZIPInputStream(new ByteArrayInputStream(coded)));
    }
    try {
      return read(new InflaterInputStream(new ByteArrayInputStream(coded)));
    } catch (IOException noHeader) {
      Inflater raw = new Inflater(true);
      try {
        // A raw deflate stream needs an extra byte at its end.
        byte[] padded = Arrays.copyOf(coded, coded.length + 1);
        return read(new InflaterInputStream(new ByteArrayInputStream(padded), raw));
      } finally {
        raw.end();
      }
    }
  }

  /**
   * Returns true if a body is larger than a limit when it is decoded; without holding it. If it is
   * malformed, the part before that counts.
   *
   * @param names its encodings, in the order of application; unknown ones are not decoded
   */
  public static boolean exceeds(byte[] coded, List<String> names, long limit) {
    long size = 0;
    try (InputStream in = decoding(new ByteArrayInputStream(coded), names)) {
      byte[] buffer = new byte[BUFFER];
      for (int read = in.read(buffer); read >= 0 && size <= limit; read = in.read(buffer)) {
        size += read;
      }
    } catch (IOException malformed) {
      // Reported where the body is read.
    }
    return size > limit;
  }

  private static InputStream decoding(InputStream coded, List<String> names) throws IOException {
    InputStream in = coded;
    for (int at = names.size() - 1; at >= 0; at--) {
      Optional<ContentEncoding> encoding = named(names.get(at));
      in = encoding.isPresent() ? encoding.get().decoding(in) : in;
    }
    return in;
  }

  private InputStream decoding(InputStream coded) throws IOException {
    if (this == GZIP) {
      return new GZIPInputStream(coded, BUFFER);
    }
    PushbackInputStream in = new PushbackInputStream(coded, 2);
    byte[] head = in.readNBytes(2);
    in.unread(head);
    boolean zlib =
        head.length == 2
            && (head[0] & 0x0f) == Deflater.DEFLATED
            && ((head[0] & 0xff) << 8 | head[1] & 0xff) % 31 == 0;
    Inflater inflater = new Inflater(!zlib);
    return new InflaterInputStream(in, inflater, BUFFER) {
      @Override
      public void close() throws IOException {
        inflater.end();
        super.close();
      }
    };
  }

  private static byte[] read(InputStream in) throws IOException {
    try (in) {
      byte[] bytes = in.readNBytes(LARGEST);
      if (in.read() >= 0) {
        throw new IOException("more than " + LARGEST + " bytes when decoded");
      }
      return bytes;
    }
  }
}
