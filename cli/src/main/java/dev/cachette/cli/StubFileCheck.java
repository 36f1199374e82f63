package dev.cachette.cli;

import dev.cachette.StubFiles;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.http.Response;
import dev.cachette.stubfile.StubFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** Checks a stub file, and those that it includes. */
final class StubFileCheck {

  /** Method, origin and path of a request line for one origin. */
  private static final Pattern LINE =
      Pattern.compile("(\\S+) (https?://[^/{}*?]+)((?:/[^?]*?)?)(?:\\{[?&].*|\\?.*)?");

  private static final Pattern PLACE = Pattern.compile("\\((.+?):(\\d+)\\)");

  private StubFileCheck() {}

  static List<Finding> of(Path file, Descriptions descriptions) {
    try {
      return StubFileContent.reading(file, stubs -> findings(file, stubs, descriptions));
    } catch (StubFileException wrong) {
      return wrong.problems().stream()
          .map(
              it ->
                  new Finding(
                      it.file(), it.line(), it.column(), it.path(), Failure.oneLine(it.message())))
          .toList();
    }
  }

  private static List<Finding> findings(Path file, StubFiles stubs, Descriptions descriptions) {
    List<Finding> findings = new ArrayList<>();
    stubs.unreachable().forEach(said -> findings.add(placed(file, said, said)));
    for (StubFileContent.Declared stub : StubFileContent.of(stubs)) {
      misfits(stub, descriptions).forEach(it -> findings.add(placed(file, stub.name(), it)));
    }
    return findings;
  }

  /** Returns the violations of a stub. */
  private static List<String> misfits(StubFileContent.Declared stub, Descriptions descriptions) {
    Matcher line = LINE.matcher(stub.line());
    if (!line.matches() || stub.unchecked()) {
      return List.of();
    }
    List<Response> answers =
        stub.answers().stream()
            .flatMap(it -> it instanceof ResponseAnswer plain ? Stream.of(plain) : Stream.empty())
            .map(ResponseAnswer::response)
            .toList();
    String path = line.group(3).isEmpty() ? "/" : line.group(3);
    return descriptions
        .at(line.group(2))
        .map(it -> it.misfits(line.group(1), path, stub.asked(), answers))
        .map(missed -> Misfits.of(stub.name().replaceAll(" \\(.*", ""), missed))
        .orElse(List.of());
  }

  /** Returns a finding at the place in a text. */
  private static Finding placed(Path file, String naming, String said) {
    Matcher place = PLACE.matcher(naming);
    return place.find()
        ? new Finding(place.group(1), Integer.parseInt(place.group(2)), 1, "", said)
        : new Finding(file.toString(), 1, 1, "", said);
  }
}
