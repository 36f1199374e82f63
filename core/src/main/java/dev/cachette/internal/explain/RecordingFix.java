// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.explain;

import dev.cachette.internal.body.Ignored;
import dev.cachette.internal.finding.CheckText;
import dev.cachette.internal.uri.VaryingPath;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.util.List;
import java.util.Map;

/** Suggests the setting that lets a difference from a recorded exchange vary. */
final class RecordingFix {

  private RecordingFix() {}

  static String of(List<Check> misses) {
    if (misses.isEmpty()) {
      return "make the call as it was recorded.";
    }
    Check miss = misses.get(0);
    String setting = setting(miss);
    String place = MissReason.place(CheckText.name(miss));
    return setting.isEmpty()
        ? "make the call as it was recorded."
        : String.format(
            "make the call as it was recorded; or, if %s varies by nature,\n"
                + ".matching(how -> how.%s), or record twice with .learnVarying().",
            place, setting);
  }

  private static String setting(Check miss) {
    String condition = miss.condition();
    String at = miss.differences().get(0).at();
    if (condition.startsWith("query ")) {
      return "ignoringQuery(\"" + condition.substring("query ".length()) + "\")";
    }
    if (condition.startsWith("form ")) {
      return "ignoringFields(\"" + condition.substring("form ".length()) + "\")";
    }
    if (condition.startsWith("header ")) {
      return "ignoringHeaders(\"" + condition.substring("header ".length()) + "\")";
    }
    if (condition.equals("path")) {
      Difference paths = miss.differences().get(0);
      return VaryingPath.between(paths.expected(), paths.actual())
          .map(template -> "ignoringPath(\"" + template + "\")")
          .orElse("");
    }
    return condition.equals("body") ? Ignored.at(at).map(RecordingFix::setting).orElse("") : "";
  }

  private static String setting(Ignored places) {
    Map<String, List<String>> settings =
        Map.of(
            "ignoringJson", places.json(),
            "ignoringXPath", places.xpath(),
            "ignoringFields", places.fields());
    return settings.entrySet().stream()
        .filter(setting -> !setting.getValue().isEmpty())
        .map(setting -> setting.getKey() + "(\"" + setting.getValue().get(0) + "\")")
        .findFirst()
        .orElse("");
  }
}
