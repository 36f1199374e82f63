// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.resource;

import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.openapi.DescriptionFile;
import java.nio.file.Path;
import java.util.Optional;
import java.util.stream.Stream;

/** An API description in a file, or in a resource on the classpath. */
public final class DescriptionSource implements DescriptionFile {

  private final StubSource source;

  private DescriptionSource(StubSource source) {
    this.source = source;
  }

  /**
   * Returns the file at this path, relative to the folder or to the working directory; else the
   * resource with this name.
   *
   * @throws IllegalArgumentException if there is none
   */
  public static DescriptionSource named(String name, Path folder) {
    return Stream.of(
            StubSource.file(folder.resolve(name)),
            StubSource.file(Path.of(name)),
            StubSource.resource(name))
        .filter(StubSource::isThere)
        .findFirst()
        .map(DescriptionSource::new)
        .orElseThrow(
            () ->
                Refusals.argument(
                    String.format(
                        "There is no API description \"%s\" in %s, in %s or on the classpath.%s",
                        name,
                        folder.toAbsolutePath(),
                        Path.of("").toAbsolutePath(),
                        near(name, folder)
                            .map(other -> "\nFix: did you mean \"" + other + "\"?")
                            .orElse(""))));
  }

  private static Optional<String> near(String name, Path folder) {
    return Resources.near(folder.resolve(name)).or(() -> Resources.near(Path.of(name)));
  }

  @Override
  public String label() {
    return source.label();
  }

  @Override
  public String text() {
    return source.text();
  }

  @Override
  public DescriptionFile sibling(String name) {
    return new DescriptionSource(source.sibling(name).requireThere());
  }
}
