package dev.cachette.internal.content;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
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
  private static final int LARGEST = 512 * 1024 * 1024;

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
