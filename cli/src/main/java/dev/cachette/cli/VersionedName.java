// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.TypeConversionException;

/**
 * A version of a consumer or a provider.
 *
 * @param name its name
 * @param version the version
 */
record VersionedName(String name, String version) {

  /** Reads {@code berths@1.4}. */
  static final class Reader implements ITypeConverter<VersionedName> {

    @Override
    public VersionedName convert(String text) {
      int at = text.indexOf('@');
      if (at < 1 || at == text.length() - 1) {
        throw new TypeConversionException(
            "\"" + text + "\" is not a name with a version, such as berths@1.4");
      }
      return new VersionedName(text.substring(0, at), text.substring(at + 1));
    }
  }

  @Override
  public String toString() {
    return name + "@" + version;
  }
}
