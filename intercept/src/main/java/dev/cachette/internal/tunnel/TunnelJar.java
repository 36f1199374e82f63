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
    Path path = Files.createTempFile("cachette-agent", ".jar");
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
   * Returns the option of the JVM.
   *
   * @param port the port of the recorder on this machine
   * @param certificate the file with the certificate of its authority
   */
  public String option(int port, Path certificate) {
    String agent = String.join("|", cachette.toString(), Integer.toString(port), certificate + "");
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
