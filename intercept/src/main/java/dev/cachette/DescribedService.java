// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.http.Uri;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.openapi.Described;
import dev.cachette.internal.openapi.Description;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Supplier;

/**
 * A service whose calls are checked against its OpenAPI 3.0 to 3.2 description, until the scope
 * ends. Created by {@link Cachette#describedBy}. Thread-safe.
 *
 * <p>A request violates the API description if it has no operation, lacks a required parameter or
 * credentials, has an unknown query parameter, or if its parameters or body are not valid against
 * their schemas. A response violates it if its status is not described (408, 429 and 500 or above
 * are always allowed), if it lacks a required header, or if its media type or body is invalid. The
 * caller gets status 500 with the reason as text, and the test fails. Formats are validated ({@code
 * date}, {@code uuid}, {@code int32} and so on).
 *
 * <p>Not checked: calls that are let through or recorded; answers from cassettes, which are from
 * the real service; the bodies of streams and of content that is neither JSON nor a form, which
 * JSON Schema cannot describe; faults; and stubs that are {@link Stub#unchecked()}.
 */
public final class DescribedService {

  private final Described described;
  private final Supplier<Description> reading;

  private DescribedService(Described described, Supplier<Description> reading) {
    this.described = described;
    this.reading = reading;
  }

  /**
   * Reads an API description.
   *
   * @throws IllegalArgumentException if the origin or the description is malformed or missing
   */
  static DescribedService named(String name, String origin, NamedFiles files) {
    if (name == null) {
      throw Refusals.argument(
          "describedBy(origin, name) needs a name, such as \"berths.openapi.yaml\".");
    }
    String at = Uri.parseOrigin(origin).origin();
    Supplier<Description> reading = () -> files.description(name);
    return new DescribedService(new Described(at, reading.get()), reading);
  }

  Described described() {
    return described;
  }

  /**
   * Reads the API description again.
   *
   * @throws IllegalArgumentException if it is malformed; the previous one stays in use
   */
  public void reload() {
    described.redescribe(reading.get());
  }

  /** Returns the files that were read so far; none for resources on the classpath. */
  public List<Path> files() {
    return described.description().files().stream()
        .filter(name -> !name.startsWith("classpath:"))
        .map(Path::of)
        .toList();
  }

  /** Returns its origin: {@code https://berths.example}. */
  public String origin() {
    return described.origin();
  }

  /**
   * Answers calls without a stub or cassette from the API description: with the example of the
   * first success, or a value generated from its schema. By default they are unexpected calls.
   */
  public DescribedService answeringFromExamples() {
    described.answerFromExamples();
    return this;
  }

  /** Returns its origin and its API description. */
  @Override
  public String toString() {
    return described.toString();
  }
}
