// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.misuse.Refusals;
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
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * The parts of a contract, one for each test class, kept beside the contract file. The file is made
 * of the parts of all classes, forks and modules that write to one folder. The sessions of a class
 * in one JVM add up; a class that runs again in another one replaces its part. Thread-safe, also
 * among processes.
 */
final class ContractParts {

  /** One wrong stub can contradict many tests. */
  private static final int SHOWN = 10;

  private static final Object IN_THIS_JVM = new Object();

  /** The parts that were read, since each class that ends reads all of them. */
  private static final Map<Path, Known> KNOWN = new HashMap<>();

  /** The parts that this JVM has written. */
  private static final Map<Path, List<Observation>> WRITTEN = new HashMap<>();

  private record Known(
      FileTime modified, long size, String origin, List<Observation> observations) {}

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
   * @return the contradictions with what this class needs, each as a text
   */
  List<String> write(String testClass, List<Observation> fresh) {
    synchronized (IN_THIS_JVM) {
      try {
        Files.createDirectories(parts);
        try (FileChannel channel =
                FileChannel.open(
                    parts.resolveSibling("lock"),
                    StandardOpenOption.CREATE,
                    StandardOpenOption.WRITE);
            FileLock lock = channel.lock()) {
          return writeAlone(testClass, fresh);
        }
      } catch (IOException unwritable) {
        throw new UncheckedIOException(
            "the contract in " + folder + " cannot be written: " + unwritable, unwritable);
      }
    }
  }

  private List<String> writeAlone(String testClass, List<Observation> fresh) throws IOException {
    Path own =
        parts.resolve(
            testClass.replaceAll("[^A-Za-z0-9._$-]", "_")
                + "-"
                + Digests.of(testClass).substring(0, 8)
                + ".json");
    List<Observation> observations = inThisJvm(own.toAbsolutePath(), fresh);
    if (observations.isEmpty()) {
      Files.deleteIfExists(own);
    } else {
      replace(own, Json.text(part(observations)));
      KNOWN.remove(own.toAbsolutePath());
    }
    List<Observation> all = all();
    List<Contradictions.Found> contradictions = Contradictions.in(all);
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
    // Those of other classes were told when these ended.
    Set<Observation> mine = Set.copyOf(observations(own, observations));
    return contradictions.stream()
        .filter(it -> mine.contains(it.one()) || mine.contains(it.other()))
        .map(Contradictions.Found::text)
        .limit(SHOWN)
        .toList();
  }

  /** Returns these, and those of other sessions of the class: each test may have its own. */
  private static List<Observation> inThisJvm(Path own, List<Observation> fresh) {
    List<Observation> all = new ArrayList<>(WRITTEN.getOrDefault(own, List.of()));
    all.addAll(fresh);
    List<Observation> kept = onePerKind(all);
    WRITTEN.put(own, kept);
    return kept;
  }

  private List<Observation> observations(Path own, List<Observation> given) throws IOException {
    return given.isEmpty() ? List.of() : observations(own);
  }

  private ObjectNode part(List<Observation> observations) {
    ObjectNode part = StubNodes.member("origin", StubNodes.text(head.origin()));
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

  private List<Observation> observations(Path file) throws IOException {
    Known part = known(file);
    if (!part.origin.equals(head.origin())) {
      throw Refusals.argument(
          String.format(
              "%s is recorded with %s in one test class, and with %s in another one.%n"
                  + "Fix: name one origin, or two providers. If that class is gone, delete %s.",
              head, part.origin, head.origin(), file));
    }
    return part.observations;
  }

  private static Known known(Path file) throws IOException {
    FileTime modified = Files.getLastModifiedTime(file);
    long size = Files.size(file);
    Known known = KNOWN.get(file.toAbsolutePath());
    if (known != null && known.modified.equals(modified) && known.size == size) {
      return known;
    }
    List<Observation> read = new ArrayList<>();
    JsonNode part = Json.tree(Files.readString(file));
    part.path("observations").forEach(it -> read.add(Observation.read(it)));
    Known fresh = new Known(modified, size, part.path("origin").asText(), List.copyOf(read));
    KNOWN.put(file.toAbsolutePath(), fresh);
    return fresh;
  }

  /** Keeps one example of those that differ in nothing else: the first in their own order. */
  private static List<Observation> onePerKind(List<Observation> observations) {
    Map<String, Observation> kinds =
        observations.stream()
            .collect(
                Collectors.toMap(
                    Observation::withoutExample,
                    it -> it,
                    (one, other) ->
                        one.exampleOrder().compareTo(other.exampleOrder()) <= 0 ? one : other,
                    TreeMap::new));
    return List.copyOf(kinds.values());
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
