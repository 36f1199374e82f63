// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static dev.cachette.Factories.*;

import dev.cachette.Cachette;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.PrintStream;
import java.net.HttpURLConnection;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;

/** Gets a file and sends it back. */
final class LargeBodies {

  private static final PrintStream OUT = System.out;
  private static final int PIECE = 64 * 1024;

  private LargeBodies() {}

  public static void main(String[] arguments) throws Exception {
    String chart = "http://charts.example/bay";
    try (Cachette net = Cachette.open()) {
      net.stub("GET " + chart).answer(file(arguments[0]).streamed());
      net.stub("PUT " + chart).saveBodyTo(arguments[1]).answer(status(201));

      long down = 0;
      try (InputStream in = URI.create(chart).toURL().openStream()) {
        byte[] piece = new byte[PIECE];
        for (int read = in.read(piece); read >= 0; read = in.read(piece)) {
          down += read;
        }
      }
      HttpURLConnection put = (HttpURLConnection) URI.create(chart).toURL().openConnection();
      put.setRequestMethod("PUT");
      put.setDoOutput(true);
      put.setChunkedStreamingMode(PIECE);
      try (InputStream in = Files.newInputStream(Path.of(arguments[0]));
          OutputStream out = put.getOutputStream()) {
        in.transferTo(out);
      }
      OUT.print("down " + down + ", up " + put.getResponseCode() + "\n");
    }
  }
}
