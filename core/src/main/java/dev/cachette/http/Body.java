package dev.cachette.http;

import java.nio.ByteBuffer;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** The content of a message, as bytes. Immutable: arrays are copied in and out. */
public final class Body {

  private static final Body EMPTY = new Body(new byte[0]);

  private final byte[] content;

  private Body(byte[] content) {
    this.content = content;
  }

  /** No content. */
  public static Body empty() {
    return EMPTY;
  }

  /** These bytes. */
  public static Body of(byte[] bytes) {
    return bytes.length == 0 ? EMPTY : new Body(bytes.clone());
  }

  /** This text, in UTF-8. */
  public static Body of(String text) {
    return of(text, StandardCharsets.UTF_8);
  }

  /** This text in the given charset. */
  public static Body of(String text, Charset charset) {
    return text.isEmpty() ? EMPTY : new Body(text.getBytes(charset));
  }

  /** How many bytes there are. */
  public int size() {
    return content.length;
  }

  /** Whether there is not a single byte. */
  public boolean isEmpty() {
    return content.length == 0;
  }

  /** A copy of the bytes. */
  public byte[] bytes() {
    return content.clone();
  }

  /** The bytes, not copied, in a buffer that cannot be written to. */
  public ByteBuffer buffer() {
    return ByteBuffer.wrap(content).asReadOnlyBuffer();
  }

  /** The bytes read as text; what is malformed becomes the replacement character. */
  public String text(Charset charset) {
    return new String(content, charset);
  }

  @Override
  public boolean equals(Object other) {
    return other instanceof Body body && Arrays.equals(content, body.content);
  }

  @Override
  public int hashCode() {
    return Arrays.hashCode(content);
  }

  /** The size only: a body may be large, and may be secret. */
  @Override
  public String toString() {
    return content.length + " bytes";
  }
}
