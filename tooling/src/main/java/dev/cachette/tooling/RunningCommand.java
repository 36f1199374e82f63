// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.http.Uri;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.URI;
import java.time.Duration;
import java.util.concurrent.TimeUnit;

/** A command that runs. It is stopped when this is closed, or when this process ends. */
public final class RunningCommand implements AutoCloseable {

  private static final long PAUSE_MILLIS = 50;
  private static final int CONNECT_MILLIS = 1_000;
  private static final long PATIENCE_SECONDS = 10;

  private final String name;
  private final Process process;
  private final Runnable after;
  private final Thread ending;

  private RunningCommand(String name, Process process, Runnable after) {
    this.name = name;
    this.process = process;
    this.after = after;
    this.ending = new Thread(process::destroy);
    Runtime.getRuntime().addShutdownHook(ending);
  }

  /**
   * Starts one.
   *
   * @param after runs once it has ended
   */
  static RunningCommand start(ProcessBuilder builder, Runnable after) {
    String name = builder.command().get(0);
    try {
      Process process = builder.start();
      if (builder.redirectInput() == ProcessBuilder.Redirect.PIPE) {
        process.getOutputStream().close();
      }
      return new RunningCommand(name, process, after);
    } catch (IOException impossible) {
      throw new ToolingException(name + " cannot be run: " + impossible.getMessage());
    }
  }

  /** Returns true if it has not ended. */
  public boolean isRunning() {
    return process.isAlive();
  }

  /**
   * Waits until it has ended; returns its exit code.
   *
   * @throws ToolingException if this thread is interrupted
   */
  public int await() {
    try {
      return process.waitFor();
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
      throw new ToolingException("interrupted while " + name + " ran.");
    }
  }

  /**
   * Waits until it accepts connections.
   *
   * @param url where it is expected
   * @throws ToolingException if it ends before, or takes longer
   */
  public void awaitReady(URI url, Duration limit) {
    long end = System.nanoTime() + limit.toNanos();
    while (!accepts(url)) {
      if (!process.isAlive()) {
        throw new ToolingException(
            name + " has exited with " + process.exitValue() + " before it was ready at " + url);
      }
      if (System.nanoTime() > end) {
        throw new ToolingException(
            String.format(
                "%s does not accept connections at %s after %d s.%nFix: check the address, or give"
                    + " it more time with --ready-within.",
                name, url, limit.toSeconds()));
      }
      pause();
    }
  }

  private void pause() {
    try {
      process.waitFor(PAUSE_MILLIS, TimeUnit.MILLISECONDS);
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
      throw new ToolingException("interrupted while " + name + " started.");
    }
  }

  private static boolean accepts(URI url) {
    int port = url.getPort() >= 0 ? url.getPort() : Uri.defaultPort(url.getScheme());
    try (Socket socket = new Socket()) {
      socket.connect(new InetSocketAddress(url.getHost(), port), CONNECT_MILLIS);
      // A socket may have connected to itself.
      return socket.getLocalPort() != port;
    } catch (IOException notYet) {
      return false;
    }
  }

  /** Stops it, if it runs, and waits for its end. */
  @Override
  public void close() {
    try {
      Runtime.getRuntime().removeShutdownHook(ending);
    } catch (IllegalStateException stopping) {
      // The hook stops it.
    }
    process.destroy();
    try {
      if (!process.waitFor(PATIENCE_SECONDS, TimeUnit.SECONDS)) {
        process.destroyForcibly().waitFor();
      }
    } catch (InterruptedException interrupted) {
      process.destroyForcibly();
      Thread.currentThread().interrupt();
    }
    after.run();
  }
}
