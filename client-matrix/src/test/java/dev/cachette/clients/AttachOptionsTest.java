// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static dev.cachette.Factories.text;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintStream;
import java.net.ServerSocket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.condition.DisabledIfSystemProperty;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Attaching at run time: options that forbid it are recognised wherever they are, and named with
 * the fix; and each system has a way.
 */
@DisabledIfSystemProperty(named = "matrix.few", matches = "true")
class AttachOptionsTest {

  private static final String DISABLED = "-XX:+DisableAttachMechanism";
  private static final String SYSTEM = "matrix.system";
  private static final String NOT_DYNAMIC = "-XX:-EnableDynamicAgentLoading";

  @TempDir Path folder;

  /** Opens a session, makes a call, and prints what comes of it. */
  static final class Opening {
    private static final PrintStream OUT = System.out;

    private Opening() {}

    public static void main(String[] arguments) throws Exception {
      String system = System.getProperty(SYSTEM);
      if (system != null) {
        pretend(system);
      }
      try (Cachette net = Cachette.open()) {
        net.stub("GET http://tides.example/v1").answer(text("04:10"));
        try (InputStream in = URI.create("http://tides.example/v1").toURL().openStream()) {
          OUT.println("ANSWERED " + new String(in.readAllBytes(), StandardCharsets.UTF_8));
        }
      } catch (IOException | IllegalStateException refused) {
        OUT.println("REFUSED " + refused.getMessage());
      }
    }
  }

  /** Renames the system, once the classes of the JDK that depend on its name are loaded. */
  private static void pretend(String system) throws IOException, InterruptedException {
    new ServerSocket(0).close();
    new ProcessBuilder("true").start().waitFor();
    System.setProperty("os.name", system);
  }

  /** A way to give an option to a JVM. */
  private enum Way {
    COMMAND_LINE,
    LONG_COMMAND_LINE,
    ARGUMENT_FILE,
    JAVA_TOOL_OPTIONS,
    JDK_JAVA_OPTIONS,
    _JAVA_OPTIONS
  }

  static Stream<List<Object>> cases() {
    return Stream.of(Way.values())
        .flatMap(way -> Stream.of(DISABLED, NOT_DYNAMIC).map(option -> List.of(way, option)));
  }

  @ParameterizedTest
  @MethodSource("cases")
  void anOptionIsRecognisedWhereverItIs(List<Object> each) throws Exception {
    Way way = (Way) each.get(0);
    String option = (String) each.get(1);
    List<String> command = new ArrayList<>();
    command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
    if (way == Way.LONG_COMMAND_LINE) {
      command.add("-Dlong=" + "x".repeat(9_000));
    }
    if (way == Way.COMMAND_LINE || way == Way.LONG_COMMAND_LINE) {
      command.add(option);
    }
    if (way == Way.ARGUMENT_FILE) {
      Path file = Files.writeString(folder.resolve("options"), option + "\n");
      command.add("@" + file);
    }
    Map<String, String> variables =
        way.name().endsWith("OPTIONS") ? Map.of(way.name(), option) : Map.of();
    String printed = printed(command, variables);

    assertTrue(printed.contains("REFUSED"), printed);
    assertTrue(printed.contains(option + " forbids attaching"), printed);
    assertTrue(printed.contains("-javaagent:"), printed);
  }

  /**
   * The way to attach depends on the name of the system; that of Windows, by {@code jcmd}, works on
   * every one.
   */
  @ParameterizedTest
  @ValueSource(strings = {"Linux", "Mac OS X", "Windows 11"})
  void eachSystemHasAWayToAttach(String system) throws Exception {
    String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
    String printed = printed(List.of(java, "-D" + SYSTEM + "=" + system), Map.of());
    assertTrue(printed.contains("ANSWERED 04:10"), printed);
  }

  private static String printed(List<String> jvm, Map<String, String> variables)
      throws IOException, InterruptedException {
    List<String> command = new ArrayList<>(jvm);
    command.addAll(List.of("-cp", System.getProperty("java.class.path"), Opening.class.getName()));
    ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true);
    builder.environment().putAll(variables);
    Process process = builder.start();
    String printed = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertTrue(process.waitFor(1, TimeUnit.MINUTES));
    return printed;
  }
}
