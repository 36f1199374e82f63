// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import java.time.DateTimeException;
import java.util.NoSuchElementException;
import java.util.regex.Pattern;

/** Exceptions of parsers, and those of code that did not expect what it was given. */
final class RawExceptions {

  /** Those of libraries for JSON, XML and YAML, which need not be on the class path. */
  private static final Pattern OF_PARSERS =
      Pattern.compile(
          "(?:com\\.fasterxml\\.jackson|tools\\.jackson|com\\.google\\.gson|jakarta\\.json"
              + "|javax\\.json|org\\.json|com\\.squareup\\.moshi|kotlinx\\.serialization"
              + "|org\\.xml\\.sax|javax\\.xml|jakarta\\.xml\\.bind|org\\.yaml\\.snakeyaml)\\..*");

  private RawExceptions() {}

  static boolean isOne(Throwable thrown) {
    return thrown instanceof NullPointerException
        || thrown instanceof ClassCastException
        || thrown instanceof IndexOutOfBoundsException
        || thrown instanceof NumberFormatException
        || thrown instanceof ArithmeticException
        || thrown instanceof NoSuchElementException
        || thrown instanceof DateTimeException
        || OF_PARSERS.matcher(thrown.getClass().getName()).matches();
  }
}
