// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import dev.cachette.internal.uri.Hosts;
import java.io.IOException;
import java.net.InetAddress;
import java.net.NetworkInterface;
import java.net.SocketException;
import java.net.UnknownHostException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Optional;

/** Addresses and names of this machine: calls to them are not intercepted. */
final class LocalHost {

  private static final Path LINUX_HOST_NAME = Path.of("/proc/sys/kernel/hostname");

  private final String ownName = ownName().toLowerCase(Locale.ROOT);

  /** The names that RFC 6761 reserves for the loopback, and the machine's own name. */
  boolean isNamed(String host) {
    String name = host.toLowerCase(Locale.ROOT);
    return name.equals("localhost")
        || name.endsWith(".localhost")
        || name.equals("localhost.localdomain")
        || name.equals("ip6-localhost")
        || name.equals(ownName);
  }

  boolean isAt(InetAddress address) {
    return address.isLoopbackAddress() || address.isAnyLocalAddress() || isOnInterface(address);
  }

  /** As {@link #isAt}, for an address as text; false for a name. */
  boolean isAtLiteral(String host) {
    try {
      return Hosts.isAddress(host) && isAt(InetAddress.getByName(host));
    } catch (UnknownHostException noAddress) {
      return false;
    }
  }

  private static boolean isOnInterface(InetAddress address) {
    try {
      return NetworkInterface.getByInetAddress(address) != null;
    } catch (SocketException unknown) {
      return false;
    }
  }

  /** Determined without a name service, which could block for seconds. */
  private static String ownName() {
    try {
      if (Files.isReadable(LINUX_HOST_NAME)) {
        return Files.readString(LINUX_HOST_NAME).strip();
      }
    } catch (IOException ignored) {
      // The environment variable is good enough.
    }
    return Optional.ofNullable(System.getenv("COMPUTERNAME"))
        .or(() -> Optional.ofNullable(System.getenv("HOSTNAME")))
        .orElse("localhost");
  }
}
