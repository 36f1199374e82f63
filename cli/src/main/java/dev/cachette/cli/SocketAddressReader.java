// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import picocli.CommandLine.ITypeConverter;

/** Parses a port, or an address and a port: {@code 8090}, {@code 0.0.0.0:8090}. */
final class SocketAddressReader implements ITypeConverter<InetSocketAddress> {

  @Override
  public InetSocketAddress convert(String text) {
    int colon = text.lastIndexOf(':');
    int port = new PortReader().convert(text.substring(colon + 1));
    String host = colon < 0 ? "" : text.substring(0, colon);
    return new InetSocketAddress(
        host.isEmpty() ? InetAddress.getLoopbackAddress() : new AddressReader().convert(host),
        port);
  }
}
