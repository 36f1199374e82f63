// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.io.IOException;
import java.net.StandardProtocolFamily;
import java.net.UnixDomainSocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.SocketChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;

/**
 * HotSpot's attach protocol, version 1, within one process: a marker file and a QUIT signal make
 * the JVM listen on a Unix socket, which accepts the command to load an agent. The JDK's own tools
 * do this from another process; {@code docs/decisions} has the figures.
 */
final class AttachProtocol {

  private static final long PATIENCE_NANOS = TimeUnit.SECONDS.toNanos(5);
  private static final long PAUSE_NANOS = TimeUnit.MILLISECONDS.toNanos(1);

  private final long pid;
  private final Path directory;

  private AttachProtocol(long pid, Path directory) {
    this.pid = pid;
    this.directory = directory;
  }

  /** Loads the agent; returns why that failed, or nothing on success. */
  static Optional<IOException> tryLoad(long pid, Path jar) {
    String system = System.getProperty("os.name", "");
    // The JVM uses the system's temporary directory, whatever java.io.tmpdir is.
    Path directory = system.startsWith("Linux") ? Path.of("/tmp") : Path.of(temporaryDirectory());
    try {
      if (system.startsWith("Windows")) {
        throw new IOException("no attach protocol for " + system);
      }
      AttachProtocol protocol = new AttachProtocol(pid, directory);
      protocol.listen();
      protocol.load(jar);
      return Optional.empty();
    } catch (IOException failed) {
      return Optional.of(failed);
    }
  }

  private static String temporaryDirectory() {
    return Optional.ofNullable(System.getenv("TMPDIR")).orElse("/tmp");
  }

  private Path socket() {
    return directory.resolve(".java_pid" + pid);
  }

  private void listen() throws IOException {
    if (Files.exists(socket())) {
      return;
    }
    Path marker = Files.createFile(directory.resolve(".attach_pid" + pid));
    try {
      sendQuit();
      long deadline = System.nanoTime() + PATIENCE_NANOS;
      while (!Files.exists(socket())) {
        if (System.nanoTime() > deadline) {
          throw new IOException("the JVM did not open " + socket());
        }
        LockSupport.parkNanos(PAUSE_NANOS);
      }
    } finally {
      Files.deleteIfExists(marker);
    }
  }

  private void sendQuit() throws IOException {
    Process kill = new ProcessBuilder("sh", "-c", "kill -QUIT " + pid).start();
    try {
      if (kill.waitFor() != 0) {
        throw new IOException("kill -QUIT failed");
      }
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted while attaching", interrupted);
    }
  }

  private void load(Path jar) throws IOException {
    String request = String.join("\0", "1", "load", "instrument", "false", jar + "=", "");
    try (SocketChannel channel = SocketChannel.open(StandardProtocolFamily.UNIX)) {
      channel.connect(UnixDomainSocketAddress.of(socket()));
      ByteBuffer bytes = ByteBuffer.wrap(request.getBytes(StandardCharsets.UTF_8));
      while (bytes.hasRemaining()) {
        channel.write(bytes);
      }
      String reply = readAll(channel);
      // The first line is the protocol's result, and "return code: n" the agent's own.
      if (!reply.startsWith("0") || reply.contains("return code: 1")) {
        throw new IOException("the JVM did not load the agent: " + reply.strip());
      }
    }
  }

  private static String readAll(SocketChannel channel) throws IOException {
    StringBuilder reply = new StringBuilder();
    ByteBuffer buffer = ByteBuffer.allocate(1024);
    while (channel.read(buffer) >= 0) {
      reply.append(StandardCharsets.UTF_8.decode(buffer.flip()));
      buffer.clear();
    }
    return reply.toString();
  }
}
