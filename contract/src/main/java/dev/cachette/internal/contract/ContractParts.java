// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.text.Digests;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/**
 * What each test class has written for a contract, beside the contract file, which is made of all
 * of them: of all classes, forks and modules that write to one folder. A class that runs again
 * replaces its part. Thread-safe, also among processes.
 */
final class ContractParts {

  private static final Object IN_THIS_JVM = new Object();

  /** The parts that were read, since each class that ends reads all of them. */
  private static final Map<Path, Known> KNOWN = new HashMap<>();

  private record Known(FileTime modified, long size, List<Observation> observations) {}

  private final Path folder;
  private final Path parts;
  private final Contract head;

  /**
   * The parts of a contract.
   *
   * @param folder the folder of the contract file
   * @param head the contract without clauses
   */
  ContractParts(Path folder, Contract head) {
    this.folder = folder;
    this.head = head;
    this.parts = folder.resolve(".parts").resolve(head.consumer() + "--" + head.provider());
  }

  /**
   * Replaces the part of a test class, and writes the contract file anew, unless there are
   * contradictions.
   *
   * @return the contradictions
   */
  List<String> write(String testClass, List<Observation> observations) {
    synchronized (IN_THIS_JVM) {
      try {
        Files.createDirectories(parts);
        try (FileChannel channel =
                FileChannel.open(
                    parts.resolveSibling("lock"),
                    StandardOpenOption.CREATE,
                    StandardOpenOption.WRITE);
            FileLock lock = channel.lock()) {
          return writeAlone(testClass, observations);
        }
      } catch (IOException unwritable) {
        throw new UncheckedIOException(
            "the contract in " + folder + " cannot be written: " + unwritable, unwritable);
      }
    }
  }

  private List<String> writeAlone(String testClass, List<Observation> observations)
      throws IOException {
    Path own =
        parts.resolve(
            testClass.replaceAll("[^A-Za-z0-9._$-]", "_")
                + "-"
                + Digests.of(testClass).substring(0, 8)
                + ".json");
    if (observations.isEmpty()) {
      Files.deleteIfExists(own);
    } else {
      replace(own, Json.text(part(observations)));
    }
    List<Observation> all = all();
    List<String> contradictions = Contradictions.in(all);
    if (contradictions.isEmpty()) {
      Contract contract =
          new Contract(head.consumer(), head.provider(), head.origin(), ContractMerge.clauses(all));
      Path file = folder.resolve(head.fileName());
      if (all.isEmpty()) {
        Files.deleteIfExists(file);
      } else if (!Files.exists(file) || !Files.readString(file).equals(contract.text())) {
        replace(file, contract.text());
      }
    }
    return contradictions;
  }

  private static ObjectNode part(List<Observation> observations) {
    ObjectNode part = StubNodes.object();
    ArrayNode all = part.putArray("observations");
    observations.forEach(it -> all.add(it.form()));
    return part;
  }

  private List<Observation> all() throws IOException {
    List<Path> files;
    try (Stream<Path> found = Files.list(parts)) {
      files = found.filter(it -> it.toString().endsWith(".json")).sorted().toList();
    }
    List<Observation> all = new ArrayList<>();
    for (Path file : files) {
      all.addAll(observations(file));
    }
    return all;
  }

  private static List<Observation> observations(Path file) throws IOException {
    Path key = file.toAbsolutePath();
    FileTime modified = Files.getLastModifiedTime(file);
    long size = Files.size(file);
    Known known = KNOWN.get(key);
    if (known != null && known.modified.equals(modified) && known.size == size) {
      return known.observations;
    }
    List<Observation> read = new ArrayList<>();
    JsonNode part = Json.tree(Files.readString(file));
    part.path("observations").forEach(it -> read.add(Observation.read(it)));
    KNOWN.put(key, new Known(modified, size, List.copyOf(read)));
    return read;
  }

  private static void replace(Path file, String text) throws IOException {
    Path fresh = Files.createTempFile(file.getParent(), ".writing", "");
    try {
      Files.writeString(fresh, text);
      Files.move(fresh, file, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
    } finally {
      Files.deleteIfExists(fresh);
    }
  }
}
