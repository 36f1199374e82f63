package dev.cachette.cli;

import dev.cachette.StubFiles;
import dev.cachette.stubfile.StubFileException;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** What can be found in a stub file, and in those that it includes. */
final class StubFileCheck {

  private static final Pattern PLACE = Pattern.compile("\\((.+?):(\\d+)\\)");

  private StubFileCheck() {}

  static List<Finding> of(Path file) {
    try {
      return StubFileContent.reading(file, StubFiles::unreachable).stream()
          .map(said -> unreachable(file, said))
          .toList();
    } catch (StubFileException wrong) {
      return wrong.problems().stream()
          .map(
              it ->
                  new Finding(
                      it.file(), it.line(), it.column(), it.path(), Failure.oneLine(it.message())))
          .toList();
    }
  }

  private static Finding unreachable(Path file, String said) {
    Matcher place = PLACE.matcher(said);
    return place.find()
        ? new Finding(place.group(1), Integer.parseInt(place.group(2)), 1, "", said)
        : new Finding(file.toString(), 1, 1, "", said);
  }
}
