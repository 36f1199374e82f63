package dev.cachette.internal.agent;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.jar.Attributes;
import java.util.jar.JarEntry;
import java.util.jar.JarOutputStream;
import java.util.jar.Manifest;

/** A jar with the agent's one class, there for as long as attaching takes. */
final class AgentJar implements AutoCloseable {

  private static final String AGENT_CLASS = Agent.class.getName();
  private static final String ENTRY = AGENT_CLASS.replace('.', '/') + ".class";

  private final Path path;

  AgentJar() throws IOException {
    path = Files.createTempFile("cachette-agent", ".jar");
    try (OutputStream file = Files.newOutputStream(path);
        JarOutputStream jar = new JarOutputStream(file, manifest());
        InputStream agent = Agent.class.getClassLoader().getResourceAsStream(ENTRY)) {
      jar.putNextEntry(new JarEntry(ENTRY));
      agent.transferTo(jar);
    }
  }

  Path path() {
    return path;
  }

  /** Deletes the jar. Windows refuses while the JVM holds it open; then it goes with the JVM. */
  @Override
  public void close() {
    try {
      Files.deleteIfExists(path);
    } catch (IOException inUse) {
      path.toFile().deleteOnExit();
    }
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
