// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.answer;

import java.util.Optional;

/**
 * How a response is prepared for one request.
 *
 * @param encoding the content encoding of its body
 * @param ranges whether a range request gets that range only
 * @param template whether its text has expressions that are filled from the request
 * @param source the file that contains its body, until it is read
 * @param streamed whether that file is streamed from disk and never read as a whole
 */
public record Delivery(
    Encoding encoding,
    boolean ranges,
    boolean template,
    Optional<Source> source,
    boolean streamed) {

  /** Sent unchanged. */
  public static final Delivery PLAIN =
      new Delivery(Encoding.NONE, false, false, Optional.empty(), false);

  /** A content encoding (RFC 9110 section 8.4). */
  public enum Encoding {
    /** No encoding. */
    NONE,
    /** gzip, even if the request does not accept it. */
    GZIP,
    /** deflate (zlib), even if the request does not accept it. */
    DEFLATE,
    /** gzip or deflate, if the request accepts one of them. */
    NEGOTIATED
  }

  /**
   * The source of a body.
   *
   * @param onClassPath true for a resource on the classpath, false for a file
   * @param name its name or path
   */
  public record Source(boolean onClassPath, String name) {}

  /** Returns this delivery with a content encoding. */
  public Delivery with(Encoding other) {
    return new Delivery(other, ranges, template, source, streamed);
  }

  /** Returns this delivery with support for byte ranges. */
  public Delivery inRanges() {
    return new Delivery(encoding, true, template, source, streamed);
  }

  /** Returns this delivery with a template. */
  public Delivery asTemplate() {
    return new Delivery(encoding, ranges, true, source, streamed);
  }

  /** Returns this delivery with another source. */
  public Delivery from(Optional<Source> other) {
    return new Delivery(encoding, ranges, template, other, streamed);
  }

  /** Returns this delivery, streamed from disk. */
  public Delivery fromDisk() {
    return new Delivery(encoding, ranges, template, source, true);
  }

  /** Returns true if the whole content is needed before it is sent. */
  public boolean needsContent() {
    return encoding != Encoding.NONE || ranges || template;
  }
}
