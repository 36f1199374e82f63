// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.internal.curl.StubsOfLines;
import dev.cachette.internal.stubfile.StubWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.function.Consumer;

/** Converts lines with a request each, {@code METHOD URL} or a curl command, to a stub file. */
public final class RequestLines {

  private RequestLines() {}

  /**
   * Returns a stub file; its answers have status 200 and no body, to be filled in.
   *
   * @param remark is told of lines that are skipped, with the reason
   * @throws ToolingException if no line has a request
   * @throws IOException if the file cannot be read
   */
  public static String toStubs(Path file, StubFormat format, Consumer<String> remark)
      throws IOException {
    Path folder = file.toAbsolutePath().getParent();
    List<ObjectNode> stubs =
        StubsOfLines.of(Files.readString(file).lines().toList(), folder, remark);
    if (stubs.isEmpty()) {
      throw new ToolingException("no line METHOD URL and no curl command in " + file + ".");
    }
    return format.written(StubWriter.file(stubs));
  }
}
