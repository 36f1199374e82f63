// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.tooling.FileCheck;
import java.time.Duration;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.TypeConversionException;

/** Parses durations as in stub files: {@code 200ms}, {@code 90d}. */
final class DurationReader implements ITypeConverter<Duration> {

  @Override
  public Duration convert(String text) {
    try {
      return FileCheck.time(text);
    } catch (IllegalArgumentException malformed) {
      throw new TypeConversionException(malformed.getMessage());
    }
  }
}
