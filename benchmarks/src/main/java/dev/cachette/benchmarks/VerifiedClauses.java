// SPDX-License-Identifier: Apache-2.0
package dev.cachette.benchmarks;

import com.sun.net.httpserver.HttpServer;
import dev.cachette.contract.ContractVerification;
import dev.cachette.contract.Contracts;
import java.io.IOException;
import java.io.PrintStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Locale;
import java.util.concurrent.Executors;

/**
 * The time to verify 500 clauses, against that of the same calls alone with the same client, in a
 * JVM that is cold at first. Each round does both, in turn; the time to read the contract file is
 * told apart.
 */
public final class VerifiedClauses {

  private static final int CLAUSES = 500;

  private VerifiedClauses() {}

  /**
   * Measures.
   *
   * @param arguments the number of rounds, 9 by default
   */
  public static void main(String[] arguments) throws Exception {
    int rounds = arguments.length > 0 ? Integer.parseInt(arguments[0]) : 9;
    Path file = Files.createTempFile("desk--berths", ".contract.yaml");
    Files.writeString(file, contract());
    HttpServer provider = provider();
    String url = "http://localhost:" + provider.getAddress().getPort();
    double[] ratios = new double[rounds];
    try (PrintStream out = new PrintStream(System.out, true, StandardCharsets.UTF_8)) {
      for (int round = 0; round < rounds; round++) {
        double bare = seconds(() -> calls(url));
        long start = System.nanoTime();
        ContractVerification verification = Contracts.in(file).of("berths").against(url);
        double read = (System.nanoTime() - start) / 1e9;
        double verified = seconds(() -> verify(verification));
        ratios[round] = verified / bare;
        out.printf(
            Locale.ROOT,
            "round %d: bare calls %.0f ms, read %.0f ms, verified %.0f ms, ratio %.2f%n",
            round + 1,
            bare * 1000,
            read * 1000,
            verified * 1000,
            ratios[round]);
      }
      double[] sorted = ratios.clone();
      Arrays.sort(sorted);
      out.printf(Locale.ROOT, "first %.2f, median %.2f%n", ratios[0], sorted[rounds / 2]);
    } finally {
      provider.stop(0);
      Files.delete(file);
    }
  }

  private interface Work {
    void run() throws Exception;
  }

  private static double seconds(Work work) throws Exception {
    long start = System.nanoTime();
    work.run();
    return (System.nanoTime() - start) / 1e9;
  }

  private static void calls(String url) throws IOException, InterruptedException {
    HttpClient client = HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1).build();
    for (int at = 0; at < CLAUSES; at++) {
      HttpRequest request =
          HttpRequest.newBuilder(URI.create(url + "/v1/berths/" + at))
              .header("accept", "application/json")
              .build();
      if (client.send(request, BodyHandlers.ofByteArray()).statusCode() != 200) {
        throw new IllegalStateException("the provider fails");
      }
    }
  }

  private static void verify(ContractVerification verification) {
    if (!verification.verify().isMet()) {
      throw new IllegalStateException("a clause is not met");
    }
  }

  private static String body(int at) {
    return String.format(
        Locale.ROOT,
        "{\"berth\":\"B-%d\",\"length\":%d.5,\"free\":true,"
            + "\"slots\":[{\"from\":\"04:10\",\"to\":\"05:00\"}],"
            + "\"quay\":{\"name\":\"north\",\"depth\":7.2}}",
        at,
        at % 90);
  }

  private static String contract() {
    StringBuilder text =
        new StringBuilder(
            """
            contract: { consumer: desk, provider: berths, origin: https://berths.example }
            stubs:
            """);
    for (int at = 0; at < CLAUSES; at++) {
      text.append(
          String.format(
              """
                - name: berth %1$d
                  request: GET https://berths.example/v1/berths/%1$d
                  answer: { json: %2$s }
                  example:
                    method: GET
                    url: https://berths.example/v1/berths/%1$d
                    headers: { accept: application/json }
                  shape:
                    mediaType: application/json
                    body:
                      type: object
                      required: [berth, free, length, quay, slots]
                      properties:
                        berth: { type: string }
                        free: { type: boolean }
                        length: { type: number }
                        quay:
                          type: object
                          required: [depth, name]
                          properties: { depth: { type: number }, name: { type: string } }
                        slots:
                          type: array
                          items:
                            type: object
                            required: [from, to]
                            properties: { from: { type: string }, to: { type: string } }
                  neededBy: [BerthDeskTest.reads]
              """,
              at, body(at)));
    }
    return text.toString();
  }

  private static HttpServer provider() throws IOException {
    // Otherwise each answer waits 40 ms for an acknowledgement, which hides everything else.
    System.setProperty("sun.net.httpserver.nodelay", "true");
    HttpServer server =
        HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    server.setExecutor(Executors.newCachedThreadPool(VerifiedClauses::daemon));
    server.createContext(
        "/",
        exchange -> {
          try (exchange) {
            String path = exchange.getRequestURI().getPath();
            int at = Integer.parseInt(path.substring(path.lastIndexOf('/') + 1));
            byte[] body = body(at).getBytes(StandardCharsets.UTF_8);
            exchange.getResponseHeaders().add("content-type", "application/json");
            exchange.sendResponseHeaders(200, body.length);
            exchange.getResponseBody().write(body);
          }
        });
    server.start();
    return server;
  }

  private static Thread daemon(Runnable work) {
    Thread thread = new Thread(work, "provider");
    thread.setDaemon(true);
    return thread;
  }
}
