// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.io.FileNotFoundException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.jspecify.annotations.Nullable;

/** The bytes of the classes that are defined in {@code java.net}, which the woven code calls. */
final class HookClasses {

  /** In the order in which they are defined. */
  private static final List<String> NAMES =
      List.of(
          "CachetteMark",
          "CachetteTask",
          "CachetteTasks",
          "CachetteStreams",
          "CachetteUnserved",
          "CachetteContext",
          "CachetteIncoming",
          "CachetteTimers",
          "CachetteConnecting",
          "CachetteHook",
          "CachetteDns");

  private static final String FOLDER = "hook/java/net/";

  private HookClasses() {}

  /** From the jar itself if there is one: resources by URL take twenty times as long. */
  static List<byte[]> read() throws IOException {
    Optional<Path> jar = OwnJar.find();
    return jar.isPresent() ? readFrom(jar.get()) : readResources();
  }

  private static List<byte[]> readFrom(Path jar) throws IOException {
    String folder = HookClasses.class.getPackageName().replace('.', '/') + '/' + FOLDER;
    List<byte[]> classes = new ArrayList<>();
    try (ZipFile zip = new ZipFile(jar.toFile())) {
      for (String name : NAMES) {
        ZipEntry entry = zip.getEntry(folder + name + ".class");
        classes.add(bytes(name, entry == null ? null : zip.getInputStream(entry)));
      }
    }
    return classes;
  }

  private static List<byte[]> readResources() throws IOException {
    List<byte[]> classes = new ArrayList<>();
    for (String name : NAMES) {
      classes.add(bytes(name, HookClasses.class.getResourceAsStream(FOLDER + name + ".class")));
    }
    return classes;
  }

  private static byte[] bytes(String name, @Nullable InputStream found) throws IOException {
    try (InputStream in = found) {
      if (in == null) {
        throw new FileNotFoundException(FOLDER + name + ".class is missing in Cachette's jar");
      }
      return in.readAllBytes();
    }
  }
}
