// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.internal.openapi.MalformedDescription;
import java.nio.file.Path;
import java.util.List;

/** Checks an API description by itself. */
final class DescriptionFileCheck {

  private DescriptionFileCheck() {}

  static List<Finding> of(Path file) {
    try {
      return Descriptions.read(file).problems().stream()
          .map(DescriptionFileCheck::finding)
          .toList();
    } catch (MalformedDescription malformed) {
      return List.of(finding(malformed));
    }
  }

  private static Finding finding(MalformedDescription malformed) {
    MalformedDescription.Place place = malformed.place();
    return new Finding(place.file(), place.line(), 1, place.path(), malformed.problem());
  }
}
