package dev.cachette.answer;

import java.util.Optional;

/**
 * How a response is made ready for one request.
 *
 * @param coding the content coding that its body is sent in
 * @param ranges whether a request for a range of bytes is answered with that range alone
 * @param template whether its text has expressions to be filled from the request
 * @param source the file that its body is read from, before it is read
 * @param streamed whether that file is sent from the disk and never read as a whole
 */
public record Delivery(
    Coding coding, boolean ranges, boolean template, Optional<Source> source, boolean streamed) {

  /** Sent as it is. */
  static final Delivery PLAIN = new Delivery(Coding.NONE, false, false, Optional.empty(), false);

  /** A content coding (RFC 9110 section 8.4). */
  public enum Coding {
    /** None: the bytes as they are. */
    NONE,
    /** gzip, whatever the request accepts. */
    GZIP,
    /** deflate (zlib), whatever the request accepts. */
    DEFLATE,
    /** gzip or deflate if the request accepts one of them. */
    NEGOTIATED
  }

  /**
   * Where a body is read from.
   *
   * @param onClassPath whether it is a resource on the class path, else a file
   * @param name its name or path
   */
  public record Source(boolean onClassPath, String name) {}

  Delivery with(Coding other) {
    return new Delivery(other, ranges, template, source, streamed);
  }

  Delivery inRanges() {
    return new Delivery(coding, true, template, source, streamed);
  }

  Delivery asTemplate() {
    return new Delivery(coding, ranges, true, source, streamed);
  }

  Delivery from(Optional<Source> other) {
    return new Delivery(coding, ranges, template, other, streamed);
  }

  Delivery fromDisk() {
    return new Delivery(coding, ranges, template, source, true);
  }

  /** Whether the content must be known before it is sent. */
  public boolean needsContent() {
    return coding != Coding.NONE || ranges || template;
  }
}
