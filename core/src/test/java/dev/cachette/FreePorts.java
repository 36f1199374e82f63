// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.atomic.AtomicInteger;

/** Free ports below those that systems give to connections, so that they stay free. */
public final class FreePorts {

  private static final int FIRST = 20_000;
  private static final int PAIRS = 5_000;

  /** The next pair; another JVM begins elsewhere. */
  private static final AtomicInteger NEXT =
      new AtomicInteger(ThreadLocalRandom.current().nextInt(PAIRS));

  private FreePorts() {}

  /** Returns one with a free one after it; another one each time. */
  public static int pair() {
    for (int tried = 0; tried < PAIRS; tried++) {
      int port = FIRST + NEXT.getAndIncrement() % PAIRS * 2;
      if (isFree(port) && isFree(port + 1)) {
        return port;
      }
    }
    throw new IllegalStateException("no port is free");
  }

  private static boolean isFree(int port) {
    try (ServerSocket socket = new ServerSocket(port, 1, InetAddress.getLoopbackAddress())) {
      return socket.isBound();
    } catch (IOException taken) {
      return false;
    }
  }
}
