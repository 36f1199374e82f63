// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static dev.cachette.Factories.*;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.UnexpectedCalls;
import java.io.IOException;
import java.io.PrintStream;
import java.net.InetAddress;
import java.net.Socket;
import java.net.UnknownHostException;
import java.nio.file.Files;
import java.nio.file.Path;

/** Calls with every client, or looks a name up for real, and says how many packets were sent. */
final class NothingLeaves {

  private static final PrintStream OUT = System.out;

  private NothingLeaves() {}

  public static void main(String[] arguments) throws Exception {
    if (arguments[0].equals("stubbed")) {
      callWithEverything();
    } else {
      lookUp();
    }
    OUT.println("packets: " + packets());
    // Some clients leave threads that would keep this JVM.
    Runtime.getRuntime().halt(0);
  }

  private static void callWithEverything() throws Exception {
    int answered = 0;
    Settings settings = Settings.defaults().unexpectedCalls(UnexpectedCalls.WARN);
    try (Cachette net = Cachette.open(settings)) {
      net.stub("GET /v1").answer(text("high"));
      for (Row row : Findings.rows().toList()) {
        for (Protocol protocol : row.protocols()) {
          try (HarbourClient client = row.create(protocol)) {
            String host = protocol.scheme + "://tides.example";
            answered += client.get(host + "/v1").body().equals("high") ? 1 : 0;
            client.get(host + "/unexpected");
          }
        }
      }
      refused("ledger.example", 5432);
      refused("203.0.113.9", 25);
    }
    OUT.println(answered + " calls answered");
  }

  private static void refused(String host, int port) {
    try (Socket socket = new Socket(host, port)) {
      throw new AssertionError("connected to " + socket);
    } catch (IOException meant) {
      // As it must be.
    }
  }

  private static void lookUp() {
    try {
      InetAddress.getByName("tides.example");
    } catch (UnknownHostException meant) {
      // Nobody is there to answer; that it was asked is what counts.
    }
  }

  /** Returns how many packets the interface has sent: the tenth number of its line. */
  private static String packets() throws IOException {
    return Files.readAllLines(Path.of("/proc/net/dev")).stream()
        .map(String::strip)
        .filter(line -> line.startsWith("out0:"))
        .map(line -> line.substring(5).strip().split("\\s+")[9])
        .findFirst()
        .orElseThrow();
  }
}
