// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import dev.cachette.internal.uri.Hosts;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * Addresses for intercepted hosts, one each, from 127.64.0.0/10: even if a connection bypasses
 * every hook, it ends on this machine, where nothing listens on it.
 */
final class SyntheticAddresses {

  private static final int FIRST = 127 << 24 | 64 << 16;
  private static final int SIZE = 1 << 22;

  private final Map<String, InetAddress> byName = new ConcurrentHashMap<>();
  private final Map<Integer, String> names = new ConcurrentHashMap<>();
  private final AtomicInteger given = new AtomicInteger();

  /** Returns the address of a host; it contains the name. */
  InetAddress of(String host) {
    return byName.computeIfAbsent(Hosts.canonical(host), this::next);
  }

  /** Returns the host of an address, even if a client has dropped the name. */
  Optional<String> hostOf(InetAddress address) {
    byte[] bytes = address.getAddress();
    return bytes.length == 4 ? Optional.ofNullable(names.get(toInt(bytes))) : Optional.empty();
  }

  private InetAddress next(String host) {
    int number = FIRST | given.incrementAndGet() % SIZE;
    byte[] bytes = {
      (byte) (number >> 24), (byte) (number >> 16), (byte) (number >> 8), (byte) number
    };
    names.put(number, host);
    try {
      return InetAddress.getByAddress(host, bytes);
    } catch (UnknownHostException impossible) {
      throw new IllegalStateException(impossible);
    }
  }

  private static int toInt(byte[] bytes) {
    return bytes[0] << 24 | (bytes[1] & 0xff) << 16 | (bytes[2] & 0xff) << 8 | bytes[3] & 0xff;
  }
}
