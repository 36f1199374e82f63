// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;

/** A real nginx that takes PUT and lists folders. */
final class Nginx implements AutoCloseable {

  private final Process process;
  private final int port;

  private Nginx(Process process, int port) {
    this.process = process;
    this.port = port;
  }

  /** Returns true if it is installed. */
  static boolean isThere() {
    return Files.isExecutable(Path.of("/usr/sbin/nginx"));
  }

  /**
   * Starts one.
   *
   * @param listing the directives by which it lists folders
   */
  static Nginx start(Path folder, String listing) throws Exception {
    int port;
    try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      port = free.getLocalPort();
    }
    Path root = Files.createDirectories(folder.resolve("root"));
    Path configuration = folder.resolve("nginx.conf");
    Files.writeString(
        configuration,
        """
        daemon off;
        user root;
        pid %1$s/nginx.pid;
        error_log %1$s/error.log;
        events {}
        http {
          access_log off;
          client_body_temp_path %1$s/body;
          proxy_temp_path %1$s/proxy;
          fastcgi_temp_path %1$s/fastcgi;
          uwsgi_temp_path %1$s/uwsgi;
          scgi_temp_path %1$s/scgi;
          server {
            listen 127.0.0.1:%2$d;
            root %3$s;
            location / {
              dav_methods PUT;
              create_full_put_path on;
              %4$s
            }
          }
        }
        """
            .formatted(folder, port, root, listing));
    Process process =
        new ProcessBuilder(
                "/usr/sbin/nginx", "-p", folder.toString(), "-c", configuration.toString())
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("out.log").toFile())
            .start();
    Nginx nginx = new Nginx(process, port);
    nginx.await();
    return nginx;
  }

  private void await() throws Exception {
    long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(20);
    while (!answers()) {
      if (System.nanoTime() > end || !process.isAlive()) {
        throw new IllegalStateException("nginx does not start");
      }
      Thread.onSpinWait();
    }
  }

  private boolean answers() {
    try (Socket socket = new Socket(InetAddress.getLoopbackAddress(), port)) {
      return socket.isConnected();
    } catch (IOException notYet) {
      return false;
    }
  }

  String url() {
    return "http://127.0.0.1:" + port;
  }

  @Override
  public void close() throws Exception {
    process.destroy();
    process.waitFor();
  }
}
