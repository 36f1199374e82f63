// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import dev.cachette.Cachette;
import dev.cachette.cassette.Redaction;
import dev.cachette.http.Uri;
import dev.cachette.internal.cases.file.CaseFile;
import dev.cachette.internal.cases.file.CaseFolder;
import dev.cachette.internal.cases.run.CaseAnswers;
import dev.cachette.internal.misuse.Refusals;
import java.net.URI;
import java.util.List;
import java.util.Set;

/** Cases in a folder. */
public final class StoredCases {

  private final CaseFolder folder;

  StoredCases(CaseFolder folder) {
    this.folder = folder;
  }

  /**
   * Prepares to replay them against a running application.
   *
   * @param url its origin: {@code http://localhost:8080}
   * @throws IllegalArgumentException if it is not an origin
   */
  public CaseReplay against(String url) {
    Refusals.given("against(url)", url);
    return new CaseReplay(folder, Uri.parseOrigin(url));
  }

  /** As {@link #against(String)}. */
  public CaseReplay against(URI url) {
    return against(Refusals.given("against(url)", url).toString());
  }

  /**
   * CaseAnswers the outgoing calls that the application makes by itself, such as at its start, in
   * the current scope of a Cachette. While a case is replayed, they are answered anyway.
   *
   * @throws dev.cachette.cassette.CassetteException if a file is not one of a case
   */
  public StoredCases answerBackground(Cachette net) {
    Refusals.given("answerBackground(net)", net);
    List<CaseFile> all = folder.read();
    Set<String> destinations = CaseAnswers.destinations(all, "");
    all.stream()
        .filter(file -> file.content().isBackground())
        .forEach(it -> CaseAnswers.putBackground(net, it, Redaction.byDefault(), destinations));
    return this;
  }

  /** Returns the folder. */
  @Override
  public String toString() {
    return "The cases in " + folder.path();
  }
}
