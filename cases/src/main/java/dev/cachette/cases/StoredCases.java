// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import dev.cachette.http.Uri;
import dev.cachette.internal.cases.file.CaseFolder;
import dev.cachette.internal.misuse.Refusals;
import java.net.URI;

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

  /** Returns the folder. */
  @Override
  public String toString() {
    return "The cases in " + folder.path();
  }
}
