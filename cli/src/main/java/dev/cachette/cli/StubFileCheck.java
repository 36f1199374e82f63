package dev.cachette.cli;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.StubFiles;
import dev.cachette.UnusedStubs;
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
    Settings settings = Settings.defaults().withoutInterception().unusedStubs(UnusedStubs.IGNORE);
    try (Cachette net = Cachette.open(settings)) {
      StubFiles files = net.load(file.toString());
      return files.unreachable().stream().map(said -> unreachable(file, said)).toList();
    } catch (StubFileException wrong) {
      return wrong.problems().stream()
          .map(
              it ->
                  new Finding(
                      it.file(),
                      it.line(),
                      it.column(),
                      it.path(),
                      it.message().replaceAll("\\s*\\R\\s*", " ")))
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
