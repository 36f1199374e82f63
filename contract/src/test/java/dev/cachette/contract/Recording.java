// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.function.BiConsumer;

/** Sessions of the harbour desk's tests, which record its contract with the berth service. */
final class Recording {

  static final String FILE = "harbour-desk--berths.contract.yaml";

  private Recording() {}

  /** Runs the code of a test class, as one test that passes. */
  static void session(Path folder, String name, BiConsumer<Cachette, ContractRecording> code) {
    session(folder, name, Desk.BERTHS, code);
  }

  /** As above, for calls without TLS. */
  static void plainSession(Path folder, String name, BiConsumer<Cachette, ContractRecording> code) {
    session(folder, name, Desk.PLAIN_BERTHS, code);
  }

  private static void session(
      Path folder, String name, String origin, BiConsumer<Cachette, ContractRecording> code) {
    try (Cachette net = Cachette.open(Settings.defaults().name(name).contractFolder(folder))) {
      code.accept(net, Contracts.record(net, "harbour-desk", "berths", origin));
    }
  }

  static ContractRecording begin(Cachette net) {
    return Contracts.record(net, "harbour-desk", "berths", Desk.BERTHS);
  }

  /** Returns the text of the contract file. */
  static String text(Path folder) {
    try {
      return Files.readString(folder.resolve(FILE));
    } catch (IOException missing) {
      throw new UncheckedIOException(missing);
    }
  }
}
