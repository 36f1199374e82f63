// SPDX-License-Identifier: Apache-2.0
package dev.cachette.benchmarks.startup;

import com.sun.net.httpserver.HttpsServer;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;

/**
 * Starts new JVMs, alternating between kinds, and compares their medians. A JVM is measured from
 * outside, from its start to its end.
 */
public final class StartUp {

  static final String PASSWORD = "harbour";

  private static final String OWN_SERVER = "no interception, own TLS server";
  private static final String OTHER_SERVER = "no interception, TLS server in another JVM";
  private static final String AGENT = "intercepted, -javaagent";
  private static final String ATTACHED = "intercepted, attached";
  private static final String MOCK = "first mock, attached";
  private static final String MOCK_AGENT = "first mock, -javaagent";

  private final Map<String, List<String>> commands = new LinkedHashMap<>();
  private final Map<String, List<Long>> millis = new LinkedHashMap<>();

  private StartUp(Path lib, Path keyStore, String url) {
    String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
    List<String> trust =
        List.of(
            "-Djavax.net.ssl.trustStore=" + keyStore,
            "-Djavax.net.ssl.trustStorePassword=" + PASSWORD);
    List<String> jvm =
        List.of(
            java, "-XX:+EnableDynamicAgentLoading", "-cp", System.getProperty("java.class.path"));
    add(OTHER_SERVER, jvm, trust, OtherServer.class, url);
    add(OWN_SERVER, jvm, trust, OwnServer.class, keyStore.toString());
    add(AGENT, jvm, List.of("-javaagent:" + lib.resolve("cachette.jar")), Intercepted.class);
    add(ATTACHED, jvm, List.of(), Intercepted.class);
    add(MOCK, jvm, List.of(), FirstMock.class);
    add(MOCK_AGENT, jvm, List.of("-javaagent:" + lib.resolve("mockito-core.jar")), FirstMock.class);
  }

  /**
   * Runs.
   *
   * @param arguments the directory with the jars, and the number of JVMs of each kind
   */
  public static void main(String[] arguments) throws Exception {
    Path keyStore = Files.createTempDirectory("cachette-benchmark").resolve("server.p12");
    makeKeyStore(keyStore);
    HttpsServer server = OwnServer.start(keyStore);
    try {
      String url = "https://localhost:" + server.getAddress().getPort() + "/v1/tides";
      StartUp startUp = new StartUp(Path.of(arguments[0]), keyStore, url);
      int rounds = Integer.parseInt(arguments[1]);
      for (int round = 0; round < rounds; round++) {
        startUp.round();
      }
      startUp.print(System.out);
    } finally {
      server.stop(0);
      Files.delete(keyStore);
      Files.delete(keyStore.getParent());
    }
  }

  private void add(
      String name, List<String> jvm, List<String> options, Class<?> main, String... arguments) {
    List<String> command = new ArrayList<>(jvm);
    command.addAll(options);
    command.add(main.getName());
    command.addAll(Arrays.asList(arguments));
    commands.put(name, command);
    millis.put(name, new ArrayList<>());
  }

  private void round() throws IOException, InterruptedException {
    for (Map.Entry<String, List<String>> command : commands.entrySet()) {
      long begun = System.nanoTime();
      int status = new ProcessBuilder(command.getValue()).inheritIO().start().waitFor();
      if (status != 0) {
        throw new IOException(command.getKey() + " ended with " + status);
      }
      millis.get(command.getKey()).add(TimeUnit.NANOSECONDS.toMillis(System.nanoTime() - begun));
    }
  }

  private void print(PrintStream out) {
    out.printf("Java %s, %d JVMs of each kind%n%n", Runtime.version(), millis.get(AGENT).size());
    millis.forEach(
        (name, all) ->
            out.printf("  %-45s median %5d ms, least %5d ms%n", name, median(name), least(all)));
    out.println();
    ratio(out, AGENT, OWN_SERVER);
    ratio(out, ATTACHED, OWN_SERVER);
    ratio(out, AGENT, OTHER_SERVER);
    ratio(out, ATTACHED, OTHER_SERVER);
    ratio(out, ATTACHED, MOCK);
    ratio(out, AGENT, MOCK_AGENT);
  }

  private void ratio(PrintStream out, String name, String other) {
    out.printf("  %.2f  %s / %s%n", (double) median(name) / median(other), name, other);
  }

  private long median(String name) {
    return median(millis.get(name));
  }

  static long median(List<Long> all) {
    return all.stream().sorted().toList().get(all.size() / 2);
  }

  private static long least(List<Long> all) {
    return all.stream().mapToLong(Long::longValue).min().orElse(0);
  }

  private static void makeKeyStore(Path path) throws IOException, InterruptedException {
    int status =
        new ProcessBuilder(
                Path.of(System.getProperty("java.home"), "bin", "keytool").toString(),
                "-genkeypair",
                "-alias",
                "server",
                "-keyalg",
                "EC",
                "-groupname",
                "secp256r1",
                "-dname",
                "CN=localhost",
                "-ext",
                "SAN=dns:localhost",
                "-storetype",
                "PKCS12",
                "-keystore",
                path.toString(),
                "-storepass",
                PASSWORD)
            .redirectErrorStream(true)
            .redirectOutput(ProcessBuilder.Redirect.DISCARD)
            .start()
            .waitFor();
    if (status != 0) {
      throw new IOException("keytool ended with " + status);
    }
  }
}
