// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import static dev.cachette.Factories.json;
import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;

/** A test class that runs in a JVM of its own, as in the next build. */
final class OtherJvm {

  private OtherJvm() {}

  /** Runs a class whose only test gets this from the berth service. */
  static void run(Path folder, String testClass, String answer) throws Exception {
    Process process =
        new ProcessBuilder(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:TieredStopAtLevel=1",
                "-cp",
                System.getProperty("java.class.path"),
                OtherJvm.class.getName(),
                folder.toString(),
                testClass,
                answer)
            .redirectErrorStream(true)
            .start();
    String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertEquals(0, process.waitFor(), said);
  }

  /** The test class. */
  public static void main(String[] arguments) throws Exception {
    Settings settings =
        Settings.defaults()
            .withoutInterception()
            .contractFolder(Path.of(arguments[0]))
            .name(arguments[1]);
    try (Cachette net = Cachette.open(settings)) {
      Contracts.record(net, "harbour-desk", "berths", Desk.PLAIN_BERTHS);
      net.stub("GET http://berths.example/v1/berths").answer(json(arguments[2]));
      URI url = URI.create(net.baseUrlFor(Desk.PLAIN_BERTHS) + "/v1/berths");
      HttpClient.newHttpClient().send(HttpRequest.newBuilder(url).build(), BodyHandlers.ofString());
    }
  }
}
