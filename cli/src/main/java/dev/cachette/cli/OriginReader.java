// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.http.Uri;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.TypeConversionException;

/** Parses the origin of a service: {@code https://tides.example}. */
final class OriginReader implements ITypeConverter<String> {

  @Override
  public String convert(String text) {
    try {
      return Uri.parseOrigin(text).origin();
    } catch (IllegalArgumentException none) {
      throw new TypeConversionException(none.getMessage());
    }
  }
}
