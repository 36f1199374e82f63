// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.oauth2.sdk.ErrorObject;

/** Thrown if a request is refused with an error of OAuth 2 (RFC 6749 section 5.2). */
final class OAuthRefusal extends Exception {

  private static final long serialVersionUID = 1;

  private final transient ErrorObject error;

  OAuthRefusal(ErrorObject error, String description) {
    super(description, null, false, false);
    this.error = error.setDescription(description);
  }

  ErrorObject error() {
    return error;
  }
}
