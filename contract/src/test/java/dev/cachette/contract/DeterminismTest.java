// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import static dev.cachette.Factories.json;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.platform.engine.discovery.DiscoverySelectors.selectClass;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.junit.InterceptHttp;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.platform.testkit.engine.EngineTestKit;

/** The file has the same bytes, whatever the order, the threads and the processes of the tests. */
@Tag("once")
class DeterminismTest {

  private static final int CLASSES = 5;

  @TempDir private static Path folder;

  private static Path written;

  /** The settings of the consumer. */
  static class Folder implements Supplier<Settings> {
    @Override
    public Settings get() {
      return Settings.defaults().contractFolder(written);
    }
  }

  /** Tests of a consumer, some of which make the same call. */
  @InterceptHttp(settings = Folder.class)
  static class Consumer {

    private static ContractRecording contract;

    @BeforeAll
    static void contract(Cachette net) {
      contract = Recording.begin(net);
    }

    static IntStream tests() {
      return IntStream.range(0, 12);
    }

    @ParameterizedTest
    @MethodSource("tests")
    void calls(int number, Cachette net) {
      var stub =
          net.stub("GET https://berths.example/v1/berths/{berth}")
              .named("berth " + number % 4)
              .answer(json(Map.of("berth", "B-" + number, "length", number * 1.5, "n", number)));
      contract.clause(stub).given("berth " + number % 4);
      new Desk().get("/v1/berths/" + number);
    }
  }

  @Test
  void inParallelAndInAnyOrder() throws Exception {
    String first = null;
    for (String parallel : new String[] {"false", "true", "true"}) {
      written = Files.createTempDirectory(folder, "run");
      long failed =
          EngineTestKit.engine("junit-jupiter")
              .configurationParameter("junit.jupiter.execution.parallel.enabled", parallel)
              .configurationParameter("junit.jupiter.execution.parallel.mode.default", "concurrent")
              .configurationParameter(
                  "junit.jupiter.testmethod.order.default",
                  "org.junit.jupiter.api.MethodOrderer$Random")
              .selectors(selectClass(Consumer.class))
              .execute()
              .testEvents()
              .failed()
              .count();
      assertEquals(0, failed);
      String text = Recording.text(written);
      assertEquals(4, text.split("- name:").length - 1, text);
      first = first == null ? text : first;
      assertEquals(first, text);
    }
  }

  /** Runs the code of one test class, without interception: in a process of its own. */
  public static void main(String[] arguments) throws Exception {
    record(Path.of(arguments[0]), Integer.parseInt(arguments[1]));
  }

  private static void record(Path to, int number) throws Exception {
    Settings settings =
        Settings.defaults().name("harbour.Test" + number).withoutInterception().contractFolder(to);
    try (Cachette net = Cachette.open(settings)) {
      Recording.begin(net);
      Random random = new Random(number);
      Map<String, Object> body = new HashMap<>();
      for (int at = 0; at < 6; at++) {
        body.put("m" + random.nextInt(9), Map.of("a", 1, "b", List.of("x")));
      }
      net.stub("GET https://berths.example/v1/berths").answer(json(body));
      net.stub("GET https://berths.example/v1/all")
          .answer(json(List.of(body, Map.of("own" + number, 1))));
      for (String path : new String[] {"/v1/berths", "/v1/all"}) {
        HttpClient.newHttpClient()
            .send(
                HttpRequest.newBuilder(URI.create(net.baseUrlFor(Desk.BERTHS) + path)).build(),
                BodyHandlers.ofString());
      }
    }
  }

  @Test
  void inSeveralProcesses() throws Exception {
    Path alone = Files.createTempDirectory(folder, "alone");
    List<Integer> order = new ArrayList<>(IntStream.range(0, CLASSES).boxed().toList());
    Collections.shuffle(order, new Random(1));
    for (int number : order) {
      record(alone, number);
    }
    Path forked = Files.createTempDirectory(folder, "forked");
    List<Process> forks = new ArrayList<>();
    for (int number = 0; number < CLASSES; number++) {
      forks.add(
          new ProcessBuilder(
                  Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                  "-XX:TieredStopAtLevel=1",
                  "-cp",
                  System.getProperty("java.class.path"),
                  DeterminismTest.class.getName(),
                  forked.toString(),
                  "" + number)
              .redirectErrorStream(true)
              .redirectOutput(folder.resolve("fork" + number).toFile())
              .start());
    }
    for (int number = 0; number < CLASSES; number++) {
      assertEquals(
          0, forks.get(number).waitFor(), Files.readString(folder.resolve("fork" + number)));
    }

    assertEquals(Recording.text(alone), Recording.text(forked));
    try (Stream<Path> left = Files.list(forked)) {
      assertTrue(left.noneMatch(it -> it.getFileName().toString().startsWith(".writing")));
    }
  }
}
