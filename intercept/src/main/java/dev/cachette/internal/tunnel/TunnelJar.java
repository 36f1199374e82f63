// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tunnel;

import dev.cachette.internal.agent.Agent;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.jar.Attributes;
import java.util.jar.JarEntry;
import java.util.jar.JarOutputStream;
import java.util.jar.Manifest;

/** The jar with the agent for other JVMs, deleted when it is closed. */
public final class TunnelJar implements AutoCloseable {

  /** The major version of class files of Java 8. */
  private static final byte JAVA_8 = 52;

  private static final int MAJOR_VERSION_AT = 7;

  private final Path path;
  private final Path cachette;

  private TunnelJar(Path path, Path cachette) {
    this.path = path;
    this.cachette = cachette;
  }

  /**
   * Writes it to a temporary file.
   *
   * @param cachette the jar with all of Cachette
   */
  public static TunnelJar write(Path cachette) throws IOException {
    return write(cachette, Files.createTempFile("cachette-agent", ".jar"));
  }

  /**
   * Returns one that is written already.
   *
   * @param cachette the jar with all of Cachette
   */
  public static TunnelJar at(Path path, Path cachette) {
    return new TunnelJar(path, cachette);
  }

  /** Writes it to a file, which stays if this is not closed. */
  public static TunnelJar write(Path cachette, Path path) throws IOException {
    try (OutputStream file = Files.newOutputStream(path);
        JarOutputStream jar = new JarOutputStream(file, manifest())) {
      for (Class<?> type : List.of(Agent.class, TunnelAgent.class)) {
        String entry = type.getName().replace('.', '/') + ".class";
        try (InputStream in = type.getClassLoader().getResourceAsStream(entry)) {
          byte[] bytes = in.readAllBytes();
          bytes[MAJOR_VERSION_AT] = JAVA_8;
          jar.putNextEntry(new JarEntry(entry));
          jar.write(bytes);
        }
      }
    }
    return new TunnelJar(path, cachette);
  }

  /**
   * Where the agent finds its recorder, on this machine.
   *
   * @param proxy the port of its proxy
   * @param certificate the file with the certificate of its authority
   * @param questions the port where it asks who made a call; 0 if it does not
   * @param mayBeAbsent whether calls go directly to their services while there is no recorder
   */
  public record Recorder(int proxy, Path certificate, int questions, boolean mayBeAbsent) {}

  /** Returns the option of the JVM. */
  public String option(Recorder recorder) {
    String agent =
        String.join(
            "|",
            cachette.toString(),
            Integer.toString(recorder.proxy()),
            recorder.certificate().toString(),
            Integer.toString(recorder.questions()),
            Boolean.toString(recorder.mayBeAbsent()));
    String option = "-javaagent:" + path + "=" + agent;
    return option.indexOf(' ') < 0 ? option : "\"" + option + "\"";
  }

  private static Manifest manifest() {
    Manifest manifest = new Manifest();
    Attributes attributes = manifest.getMainAttributes();
    attributes.put(Attributes.Name.MANIFEST_VERSION, "1.0");
    attributes.put(new Attributes.Name("Premain-Class"), TunnelAgent.class.getName());
    attributes.put(new Attributes.Name("Can-Retransform-Classes"), "true");
    attributes.put(new Attributes.Name("Can-Redefine-Classes"), "true");
    return manifest;
  }

  /** Deletes it; Windows refuses while a JVM uses it, so then it is deleted at exit. */
  @Override
  public void close() {
    try {
      Files.deleteIfExists(path);
    } catch (IOException inUse) {
      path.toFile().deleteOnExit();
    }
  }
}
