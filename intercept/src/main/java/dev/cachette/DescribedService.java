package dev.cachette;

import dev.cachette.internal.openapi.Described;
import dev.cachette.internal.openapi.Description;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Supplier;

/**
 * A service whose calls are held against its description in OpenAPI 3.0 or 3.1, until the scope
 * ends. Made by {@link Cachette#describedBy}. Any thread may use it.
 *
 * <p>A request is refused that has no operation, lacks a parameter or credentials, has a parameter
 * in its query that the description does not know, or whose parameters or body do not fit their
 * schemas. An answer is impossible whose status is not described (408, 429 and those from 500 may
 * come from anywhere, and pass), which lacks a header, or whose media type or body do not fit. The
 * caller gets status 500 with the reason as text, and the test fails. Formats are checked ({@code
 * date}, {@code uuid}, {@code int32} and so on).
 *
 * <p>Not looked at: calls that are let through or recorded; the answers of cassettes, which the
 * real service gave; the bodies of streams and of content that is neither JSON nor a form, for
 * which JSON Schema has no word; troubles; and stubs that are {@link Stub#undescribed()}.
 */
public final class DescribedService {

  private final Described described;
  private final Supplier<Description> reading;

  DescribedService(Described described, Supplier<Description> reading) {
    this.described = described;
    this.reading = reading;
  }

  /**
   * Reads the description again.
   *
   * @throws IllegalArgumentException if it is malformed now; what was read before stays in force
   */
  public void reload() {
    described.redescribe(reading.get());
  }

  /** The files that were read so far; none that are on the class path. */
  public List<Path> files() {
    return described.description().files().stream()
        .filter(name -> !name.startsWith("classpath:"))
        .map(Path::of)
        .toList();
  }

  /** Where it is: {@code https://berths.example}. */
  public String origin() {
    return described.origin();
  }

  /**
   * From now on, a call that no stub and no cassette answers is answered by the description: by the
   * example of the first success, or what its schema allows. By default it is an unexpected call.
   */
  public DescribedService answeringFromExamples() {
    described.answerFromExamples();
    return this;
  }

  /** Where it is, and what describes it. */
  @Override
  public String toString() {
    return described.toString();
  }
}
