// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases.run;

import dev.cachette.cassette.Redaction;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.cases.file.CaseFile;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;

/**
 * How cases are replayed.
 *
 * @param application the origin of the running application
 * @param changes changes of each incoming request
 * @param secrets the rules of redaction, with the values of secrets
 * @param destinations the origins of all outgoing calls that were captured
 * @param background the outgoing calls that the application makes by itself
 * @param updates whether files are updated to what the application does now
 */
public record ReplaySettings(
    Uri application,
    List<UnaryOperator<Request>> changes,
    Redaction secrets,
    Set<String> destinations,
    List<CaseFile> background,
    boolean updates) {

  /** Copies the collections. */
  public ReplaySettings {
    changes = List.copyOf(changes);
    destinations = Set.copyOf(destinations);
    background = List.copyOf(background);
  }
}
