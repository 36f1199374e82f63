// SPDX-License-Identifier: Apache-2.0
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

  /** Returns a body with these bytes. */
  public static Body of(byte[] bytes) {
    return bytes.length == 0 ? EMPTY : new Body(bytes.clone());
  }

  /** Returns a body with this text, in UTF-8. */
  public static Body of(String text) {
    return of(text, StandardCharsets.UTF_8);
  }

  /** Returns a body with this text, in the given charset. */
  public static Body of(String text, Charset charset) {
    return text.isEmpty() ? EMPTY : new Body(text.getBytes(charset));
  }

  /** Returns the number of bytes. */
  public int size() {
    return content.length;
  }

  /** Returns true if there are no bytes. */
  public boolean isEmpty() {
    return content.length == 0;
  }

  /** Returns a copy of the bytes. */
  public byte[] bytes() {
    return content.clone();
  }

  /** Returns the bytes as a read-only buffer, without a copy. */
  public ByteBuffer buffer() {
    return ByteBuffer.wrap(content).asReadOnlyBuffer();
  }

  /** Returns the bytes decoded as text; malformed input becomes the replacement character. */
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

  /** Returns the size only: a body may be large, and may be secret. */
  @Override
  public String toString() {
    return content.length == 1 ? "1 byte" : content.length + " bytes";
  }
}
