package dev.cachette.cli;

import dev.cachette.examples.demo.Demo;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Help.Ansi;

/** {@code cachette demo}. */
@Command(
    name = "demo",
    mixinStandardHelpOptions = true,
    description = {
      "Run the demo: a complete arrival in the harbour of Marrow Bay, without a network.",
      "It shows stubs, a fault, an explanation, assertions, a recording and its replay."
    },
    footerHeading = "%nExample:%n",
    footer = "  cachette demo")
final class DemoCommand implements Callable<Integer> {

  @Override
  public Integer call() throws Exception {
    PrintStream out = new PrintStream(System.out, true, StandardCharsets.UTF_8);
    return Demo.tell(out, Ansi.AUTO.enabled()) ? 0 : Tool.DOES_NOT_HOLD;
  }
}
