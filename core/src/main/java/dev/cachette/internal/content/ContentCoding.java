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

/** The content codings of RFC 9110 section 8.4.1 that Java knows. */
public enum ContentCoding {
  /** RFC 1952. */
  GZIP,
  /** The zlib format (RFC 1950); read also without its header, as some clients send it. */
  DEFLATE;

  /** A body larger than this when decoded is taken for a mistake, or worse. */
  private static final int LARGEST = 512 * 1024 * 1024;

  /** The coding of this name, whatever its case; empty if it is another one. */
  public static Optional<ContentCoding> named(String name) {
    String lower = name.strip().toLowerCase(Locale.ROOT);
    return switch (lower) {
      case "gzip", "x-gzip" -> Optional.of(GZIP);
      case "deflate" -> Optional.of(DEFLATE);
      default -> Optional.empty();
    };
  }

  /** The names in fields of {@code content-encoding}, in the order in which they were applied. */
  public static List<String> namesIn(List<String> fields) {
    return fields.stream()
        .flatMap(field -> Stream.of(field.split(",")))
        .map(String::strip)
        .filter(name -> !name.isEmpty() && !name.equalsIgnoreCase("identity"))
        .toList();
  }

  /** The name as a header has it. */
  public String token() {
    return name().toLowerCase(Locale.ROOT);
  }

  /** The bytes in this coding. */
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
   * The bytes that were encoded.
   *
   * @throws IOException if these bytes are not in this coding
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
        // A raw stream needs one byte behind its end.
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
