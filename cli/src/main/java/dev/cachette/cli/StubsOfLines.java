package dev.cachette.cli;

import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.stubfile.StubWriter;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Converts lines with a request each to stubs, whose answers are to be filled in. */
final class StubsOfLines {

  private static final Pattern METHOD_AND_URL =
      Pattern.compile("\\b([A-Z]{3,10})\\s+(https?://\\S+)");

  private StubsOfLines() {}

  /** Returns a stub file. */
  static ObjectNode of(Path file, Consumer<String> remark) throws IOException {
    Set<ObjectNode> stubs = new LinkedHashSet<>();
    List<String> lines = Files.readString(file).lines().toList();
    for (int at = 0; at < lines.size(); at++) {
      int first = at + 1;
      String line = lines.get(at).strip();
      // A backslash continues a command on the next line.
      while (line.endsWith("\\") && at + 1 < lines.size()) {
        at++;
        line = line.substring(0, line.length() - 1) + "  " + lines.get(at).strip();
      }
      if (line.isBlank() || line.startsWith("#")) {
        continue;
      }
      try {
        stubs.add(stub(line));
      } catch (IllegalArgumentException unreadable) {
        remark.accept(String.format("skipped, line %d: %s", first, unreadable.getMessage()));
      }
    }
    if (stubs.isEmpty()) {
      throw new Failure("no line METHOD URL and no curl command in " + file + ".");
    }
    List<ObjectNode> all = new ArrayList<>(stubs);
    all.forEach(stub -> stub.putObject("answer").put("status", 200));
    return StubWriter.file(all);
  }

  private static ObjectNode stub(String line) {
    if (line.startsWith("curl ") || line.startsWith("$ curl ")) {
      return CurlLine.parse(line.substring(line.indexOf("curl"))).pattern();
    }
    Matcher request = METHOD_AND_URL.matcher(line);
    if (!request.find()) {
      throw new IllegalArgumentException("expected METHOD URL");
    }
    return StubsOfExchanges.pattern(
        new Request(request.group(1), Uri.parse(request.group(2)), Headers.none(), Body.empty()));
  }
}
