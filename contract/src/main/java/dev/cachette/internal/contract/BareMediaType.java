// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import dev.cachette.http.Response;
import java.util.Locale;

/** Media types without parameters. */
final class BareMediaType {

  private BareMediaType() {}

  /** Returns the media type of a response in lower case; empty if it has no content. */
  static String bare(Response response) {
    if (response.body().isEmpty()) {
      return "";
    }
    String type = response.headers().first("content-type").orElse("");
    int parameters = type.indexOf(';');
    return (parameters < 0 ? type : type.substring(0, parameters)).strip().toLowerCase(Locale.ROOT);
  }
}
