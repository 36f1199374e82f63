// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import java.net.InetAddress;
import java.net.UnknownHostException;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.TypeConversionException;

/** Parses an address of this machine: numeric, or a host name. */
final class AddressReader implements ITypeConverter<InetAddress> {

  @Override
  public InetAddress convert(String text) {
    try {
      return InetAddress.getByName(text);
    } catch (UnknownHostException unknown) {
      throw new TypeConversionException("unknown address \"" + text + "\"");
    }
  }
}
