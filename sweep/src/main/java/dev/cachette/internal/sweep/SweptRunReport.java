// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.sweep;

import dev.cachette.sweep.result.SweptRun;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;

/** A run as the run report has it. */
final class SweptRunReport {

  private SweptRunReport() {}

  static Map<String, Object> of(String sweep, SweptRun run) {
    Map<String, Object> json = new LinkedHashMap<>();
    json.put("sweep", sweep);
    json.put("id", run.id());
    json.put("number", run.number());
    json.put("call", run.call());
    json.put("fault", run.fault().toString());
    json.put("detail", run.detail());
    json.put("outcome", run.outcome().name().toLowerCase(Locale.ROOT).replace('_', ' '));
    json.put("repeats", run.repeats());
    json.put("findings", run.findings());
    return json;
  }
}
