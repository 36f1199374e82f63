// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.jar.Attributes;
import java.util.jar.JarEntry;
import java.util.jar.JarOutputStream;
import java.util.jar.Manifest;

/**
 * The jar with the agent: Cachette's own jar, if it is on the classpath. Otherwise (classes in a
 * directory, a framework's class loader) a temporary jar with the agent class only, deleted after
 * attaching: writing it costs some 100 ms, and adding all of Cachette to the classpath again would
 * mix classes of two loaders.
 */
final class AgentJar implements AutoCloseable {

  private static final String AGENT_CLASS = Agent.class.getName();
  private static final String ENTRY = AGENT_CLASS.replace('.', '/') + ".class";

  private final Path path;
  private final boolean temporary;

  private AgentJar(Path path, boolean temporary) {
    this.path = path;
    this.temporary = temporary;
  }

  static AgentJar get() throws IOException {
    Optional<Path> own = OwnJar.find();
    return own.isPresent() && Agent.class.getClassLoader() == ClassLoader.getSystemClassLoader()
        ? new AgentJar(own.get(), false)
        : write();
  }

  Path path() {
    return path;
  }

  /** Deletes a temporary jar. Windows refuses while the JVM uses it; then it is deleted on exit. */
  @Override
  public void close() {
    if (temporary) {
      try {
        Files.deleteIfExists(path);
      } catch (IOException inUse) {
        path.toFile().deleteOnExit();
      }
    }
  }

  private static AgentJar write() throws IOException {
    Path path = Files.createTempFile("cachette-agent", ".jar");
    try (OutputStream file = Files.newOutputStream(path);
        JarOutputStream jar = new JarOutputStream(file, manifest());
        InputStream agent = Agent.class.getClassLoader().getResourceAsStream(ENTRY)) {
      jar.putNextEntry(new JarEntry(ENTRY));
      agent.transferTo(jar);
    }
    return new AgentJar(path, true);
  }

  private static Manifest manifest() {
    Manifest manifest = new Manifest();
    Attributes attributes = manifest.getMainAttributes();
    attributes.put(Attributes.Name.MANIFEST_VERSION, "1.0");
    attributes.put(new Attributes.Name("Agent-Class"), AGENT_CLASS);
    attributes.put(new Attributes.Name("Can-Retransform-Classes"), "true");
    attributes.put(new Attributes.Name("Can-Redefine-Classes"), "true");
    return manifest;
  }
}
