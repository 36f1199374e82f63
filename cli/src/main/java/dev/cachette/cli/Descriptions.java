// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.http.Uri;
import dev.cachette.internal.openapi.Described;
import dev.cachette.internal.openapi.Description;
import dev.cachette.internal.resource.DescriptionSource;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The API descriptions to check files against, each for the origins of its service. */
final class Descriptions {

  private final List<Described> all = new ArrayList<>();

  /**
   * Reads the given ones.
   *
   * @param named each a file, or an origin with a file: {@code https://berths.example=berths.yaml}
   */
  Descriptions(List<String> named) {
    for (String each : named) {
      int equals = each.contains("://") ? each.indexOf('=') : -1;
      String file = each.substring(equals + 1);
      Description description = read(Path.of(file));
      List<String> origins =
          equals < 0 ? description.origins() : List.of(origin(each.substring(0, equals)));
      if (origins.isEmpty()) {
        throw new Failure(
            file
                + " has no server with a host. Fix: give its origin: --openapi"
                + " https://berths.example="
                + file);
      }
      origins.forEach(origin -> all.add(new Described(origin, description)));
    }
  }

  static Description read(Path file) {
    if (!Files.isRegularFile(file)) {
      throw Failure.noFile(file);
    }
    return Description.read(DescriptionSource.named(file.toString(), Path.of("")));
  }

  private static String origin(String written) {
    try {
      return Uri.parseOrigin(written).origin();
    } catch (IllegalArgumentException none) {
      throw new WrongUsage("--openapi: " + none.getMessage());
    }
  }

  /** Returns the API description of the service at an origin. */
  Optional<Description> at(String origin) {
    return all.stream()
        .filter(service -> service.origin().equals(origin))
        .map(Described::description)
        .findFirst();
  }
}
