// SPDX-License-Identifier: Apache-2.0
package dev.cachette.http;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * The header fields of a message, in order, including repeated ones (RFC 9110 section 5).
 *
 * <p>Names are not case-sensitive. Immutable and safe to share between threads.
 */
public final class Headers implements Iterable<Header> {

  private static final Headers NONE = new Headers(List.of());

  private final List<Header> fields;

  private Headers(List<Header> fields) {
    this.fields = List.copyOf(fields);
  }

  /** No headers. */
  public static Headers none() {
    return NONE;
  }

  /** Returns the given fields, in their order. */
  public static Headers of(List<Header> fields) {
    return new Headers(fields);
  }

  /** Returns the value of the first field with this name. */
  public Optional<String> first(String name) {
    for (Header field : fields) {
      if (field.isNamed(name)) {
        return Optional.of(field.value());
      }
    }
    return Optional.empty();
  }

  /** Returns the values of all fields with this name, in order; empty if there is none. */
  public List<String> all(String name) {
    return stream().filter(field -> field.isNamed(name)).map(Header::value).toList();
  }

  /** Returns true if there are no fields. */
  public boolean isEmpty() {
    return fields.isEmpty();
  }

  /** Returns true if there is a field with this name. */
  public boolean has(String name) {
    return first(name).isPresent();
  }

  /**
   * Returns these headers with the named one set: existing fields of that name are removed, and the
   * given values are added at the end, one field each. Without values, it only removes.
   *
   * @throws IllegalArgumentException if the name or a value is malformed, see {@link Header}
   */
  public Headers with(String name, String... values) {
    List<Header> changed = new ArrayList<>(fields);
    changed.removeIf(field -> field.isNamed(name));
    for (String value : values) {
      changed.add(new Header(name, value));
    }
    return new Headers(changed);
  }

  /**
   * Returns these headers with an additional field, after those of the same name.
   *
   * @throws IllegalArgumentException if the name or the value is malformed, see {@link Header}
   */
  public Headers and(String name, String value) {
    List<Header> more = new ArrayList<>(fields);
    more.add(new Header(name, value));
    return new Headers(more);
  }

  /** Returns the content type, if there is a valid one. */
  public Optional<MediaType> contentType() {
    return first("content-type").flatMap(MediaType::read);
  }

  /** Returns the charset that {@code content-type} names, else UTF-8. */
  public Charset charset() {
    return contentType().map(MediaType::charsetOrDefault).orElse(StandardCharsets.UTF_8);
  }

  /** Returns all fields, in order. */
  public Stream<Header> stream() {
    return fields.stream();
  }

  @Override
  public Iterator<Header> iterator() {
    return fields.iterator();
  }

  @Override
  public boolean equals(Object other) {
    return other instanceof Headers headers && fields.equals(headers.fields);
  }

  @Override
  public int hashCode() {
    return fields.hashCode();
  }

  /** Returns the fields, one per line, with secrets masked. */
  @Override
  public String toString() {
    return stream().map(Header::toString).collect(Collectors.joining("\n"));
  }
}
