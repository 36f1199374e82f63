// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.TypeConversionException;

/** A range of status codes: {@code 404}, {@code 4xx}, {@code 400-499}. */
record StatusRange(int first, int last) {

  private static final Pattern RANGE = Pattern.compile("([1-5]\\d\\d)-([1-5]\\d\\d)");

  boolean contains(int status) {
    return status >= first && status <= last;
  }

  /** Parses a range. */
  static final class Reader implements ITypeConverter<StatusRange> {

    @Override
    public StatusRange convert(String text) {
      Matcher range = RANGE.matcher(text);
      if (range.matches()) {
        return new StatusRange(Integer.parseInt(range.group(1)), Integer.parseInt(range.group(2)));
      }
      if (text.matches("[1-5]xx")) {
        int first = (text.charAt(0) - '0') * 100;
        return new StatusRange(first, first + 99);
      }
      if (text.matches("[1-5]\\d\\d")) {
        return new StatusRange(Integer.parseInt(text), Integer.parseInt(text));
      }
      throw new TypeConversionException("write it as 404, 4xx or 400-499");
    }
  }
}
