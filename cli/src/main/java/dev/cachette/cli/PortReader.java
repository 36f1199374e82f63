// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.TypeConversionException;

/** Parses a port number; 0 is a free port. */
final class PortReader implements ITypeConverter<Integer> {

  private static final int LARGEST = 65_535;

  @Override
  public Integer convert(String text) {
    if (text.matches("[0-9]{1,5}") && Integer.parseInt(text) <= LARGEST) {
      return Integer.valueOf(text);
    }
    throw new TypeConversionException(
        "a port is a number from 0 to " + LARGEST + ", not \"" + text + "\"");
  }
}
