package dev.cachette.cli;

import java.net.InetAddress;
import java.net.UnknownHostException;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.TypeConversionException;

/** Reads an address of this machine: as numbers, or a name that it has. */
final class AddressReader implements ITypeConverter<InetAddress> {

  @Override
  public InetAddress convert(String text) {
    try {
      return InetAddress.getByName(text);
    } catch (UnknownHostException unknown) {
      throw new TypeConversionException("there is no address \"" + text + "\" to listen at");
    }
  }
}
