// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import java.net.InetAddress;
import java.net.NetworkInterface;
import java.net.SocketException;
import java.net.UnknownHostException;
import java.util.List;

/** Tells by which names this machine is called. */
final class LocalHosts {

  private LocalHosts() {}

  /**
   * Returns true if a connection to a host arrives at one of these addresses.
   *
   * @param addresses those of listeners; one may be the address for all interfaces
   */
  static boolean isOneOf(String host, List<InetAddress> addresses) {
    boolean any = addresses.stream().anyMatch(InetAddress::isAnyLocalAddress);
    if (host.equals("localhost")) {
      return any || addresses.stream().anyMatch(InetAddress::isLoopbackAddress);
    }
    try {
      for (InetAddress address : InetAddress.getAllByName(host)) {
        if (addresses.contains(address)
            || address.isAnyLocalAddress()
            || any && isOfThisMachine(address)) {
          return true;
        }
      }
      return false;
    } catch (UnknownHostException | SocketException elsewhere) {
      return false;
    }
  }

  private static boolean isOfThisMachine(InetAddress address) throws SocketException {
    return address.isLoopbackAddress() || NetworkInterface.getByInetAddress(address) != null;
  }
}
