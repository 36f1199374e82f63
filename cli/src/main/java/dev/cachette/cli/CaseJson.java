// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.cases.CapturedCaseInfo;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;

/** Captured cases as JSON. */
final class CaseJson {

  private CaseJson() {}

  static Map<String, Object> of(CapturedCaseInfo captured) {
    Map<String, Object> json = new LinkedHashMap<>();
    json.put("number", captured.number());
    json.put("name", captured.name());
    json.put("file", captured.file().toString().replace('\\', '/'));
    json.put("incoming", captured.incoming());
    json.put("outcome", captured.outcome());
    json.put("outgoing", captured.outgoing());
    json.put("varying", captured.varying());
    json.put("change", captured.change().name().toLowerCase(Locale.ROOT));
    return json;
  }
}
