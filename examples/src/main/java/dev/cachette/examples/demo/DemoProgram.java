// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.demo;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.spi.ToolProvider;

/** The demo as a program that others find by its name, {@code marrow-bay}; --color for colors. */
public final class DemoProgram implements ToolProvider {

  @Override
  public String name() {
    return "marrow-bay";
  }

  @Override
  public int run(PrintWriter out, PrintWriter err, String... arguments) {
    try {
      return Demo.tell(out, List.of(arguments).contains("--color")) ? 0 : 1;
    } catch (IOException failed) {
      throw new UncheckedIOException(failed);
    }
  }
}
