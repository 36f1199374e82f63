// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract.store;

import dev.cachette.internal.contract.Contract;
import dev.cachette.internal.contract.ContractFiles;
import dev.cachette.internal.contract.VersionedContract;
import dev.cachette.internal.misuse.Refusals;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;

/** Finds the contracts at a location: a file, a folder, or a store. */
public final class ContractSources {

  private ContractSources() {}

  /** Returns the source at a location, which is read later. */
  public static ContractSource at(String location) {
    if (Stores.isStore(location)) {
      return ofStore(location);
    }
    return () -> read(Path.of(location));
  }

  private static ContractSource ofStore(String location) {
    return new ContractSource() {
      @Override
      public List<VersionedContract> read() {
        return Stores.at(location).snapshot().current();
      }

      @Override
      public List<VersionedContract> readAll() {
        return Stores.at(location).snapshot().all();
      }
    };
  }

  private static List<VersionedContract> read(Path location) {
    if (!Files.exists(location)) {
      throw Refusals.argument(
          location
              + " does not exist. Fix: name a contract file ("
              + Contract.ENDING
              + "), a folder of such files, or a store.");
    }
    List<VersionedContract> contracts = new ArrayList<>();
    for (Path file : files(location)) {
      contracts.add(new VersionedContract("", contract(file)));
    }
    if (contracts.isEmpty()) {
      throw Refusals.argument(
          location + " has no contract: no file whose name ends with " + Contract.ENDING + ".");
    }
    return contracts;
  }

  /** Reads a file. */
  public static Contract contract(Path file) {
    try {
      return ContractFiles.read(file.toString(), Files.readString(file));
    } catch (IOException unreadable) {
      throw new UncheckedIOException(file + " cannot be read: " + unreadable, unreadable);
    }
  }

  private static List<Path> files(Path location) {
    if (Files.isRegularFile(location)) {
      return List.of(location);
    }
    try (Stream<Path> found = Files.list(location)) {
      return found.filter(it -> it.toString().endsWith(Contract.ENDING)).sorted().toList();
    } catch (IOException unreadable) {
      throw new UncheckedIOException(location + " cannot be read: " + unreadable, unreadable);
    }
  }
}
