// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import dev.cachette.http.Uri;
import dev.cachette.internal.misuse.Refusals;

/** The URL of a provider. */
public final class Issuer {

  private Issuer() {}

  /**
   * Returns it without a slash at its end.
   *
   * @throws IllegalArgumentException if it is not an http or https URL, or has a query
   */
  public static String of(String url) {
    Uri uri = Uri.parse(url);
    Uri.parseOrigin(uri.origin());
    if (uri.rawQuery().isPresent()) {
      throw Refusals.argument("an issuer is a URL without a query, not \"" + url + "\".");
    }
    return url.replaceAll("/+$", "");
  }
}
