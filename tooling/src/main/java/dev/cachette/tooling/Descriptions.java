// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.http.Uri;
import dev.cachette.internal.openapi.Described;
import dev.cachette.internal.openapi.Description;
import dev.cachette.internal.resource.DescriptionSource;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * The API descriptions (OpenAPI 3.0 to 3.2) that files are checked against, each for the origins of
 * its service. Immutable.
 */
public final class Descriptions {

  private final List<Described> all;

  private Descriptions(List<Described> all) {
    this.all = all;
  }

  /** Returns none. */
  public static Descriptions none() {
    return new Descriptions(List.of());
  }

  /**
   * Returns the origins of the servers in an API description; relative ones have none.
   *
   * @throws ToolingException if there is no such file
   */
  public static List<String> originsOf(Path file) {
    return read(file).origins();
  }

  /**
   * Returns these and another one, for the service at its servers.
   *
   * @throws ToolingException if there is no such file
   */
  public Descriptions with(Path file) {
    Description description = read(file);
    return with(description.origins(), description);
  }

  /**
   * Returns these and another one, for the service at an origin.
   *
   * @throws ToolingException if there is no such file
   * @throws IllegalArgumentException if the origin is malformed
   */
  public Descriptions with(String origin, Path file) {
    return with(List.of(Uri.parseOrigin(origin).origin()), read(file));
  }

  private Descriptions with(List<String> origins, Description description) {
    return new Descriptions(
        Stream.concat(
                all.stream(), origins.stream().map(origin -> new Described(origin, description)))
            .toList());
  }

  static Description read(Path file) {
    if (!Files.isRegularFile(file)) {
      throw ToolingException.noFile(file);
    }
    return Description.read(DescriptionSource.named(file.toString(), Path.of("")));
  }

  /** Returns the origins of the described services. */
  List<String> origins() {
    return all.stream().map(Described::origin).distinct().toList();
  }

  /** Returns the API description of the service at an origin. */
  Optional<Description> at(String origin) {
    return all.stream()
        .filter(service -> service.origin().equals(origin))
        .map(Described::description)
        .findFirst();
  }
}
