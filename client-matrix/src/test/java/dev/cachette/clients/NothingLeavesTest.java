// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.condition.DisabledIfSystemProperty;
import org.junit.jupiter.api.condition.EnabledIf;

/**
 * In a network namespace whose only way out is an interface that counts: whatever the clients do,
 * no packet is sent by it.
 */
@EnabledIf("canMakeNamespaces")
@DisabledIfSystemProperty(named = "matrix.few", matches = "true")
class NothingLeavesTest {

  private static final String SET_UP =
      """
      set -e
      ip link set lo up
      ip link add out0 type veth peer name in0
      echo 1 > /proc/sys/net/ipv6/conf/all/disable_ipv6 || true
      ip link set in0 arp off up
      ip link set out0 arp off up
      ip addr add 198.51.100.2/24 dev out0
      ip route add default via 198.51.100.1 dev out0
      export RES_OPTIONS="timeout:1 attempts:1"
      exec "$@"
      """;

  static boolean canMakeNamespaces() {
    try {
      return Files.isExecutable(Path.of("/usr/bin/unshare"))
          && new ProcessBuilder("unshare", "-n", "ip", "link").start().waitFor() == 0;
    } catch (Exception notHere) {
      return false;
    }
  }

  @Test
  @Timeout(180)
  void noPacketIsSent() throws Exception {
    String said = run("stubbed");

    assertTrue(said.contains("calls answered"), said);
    assertEquals("0", packets(said), said);
  }

  @Test
  @Timeout(180)
  void aPacketWouldBeCounted() throws Exception {
    assertTrue(Integer.parseInt(packets(run("not stubbed"))) > 0);
  }

  private static String packets(String said) {
    return said.lines()
        .filter(line -> line.startsWith("packets: "))
        .map(line -> line.substring(9))
        .collect(Collectors.joining());
  }

  private static String run(String mode) throws Exception {
    List<String> command =
        new ArrayList<>(List.of("unshare", "-n", "bash", "-c", SET_UP, "namespace"));
    command.addAll(Jvm.command(List.of(), NothingLeaves.class, mode));
    return Jvm.run(command);
  }
}
