// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import dev.cachette.http.Response;

/**
 * A condition on the credentials of a request. A request that meets all other conditions of a stub
 * but not this one is answered by the challenge (RFC 9110 section 11.4): it is no unexpected call,
 * and not a call of the stub.
 */
public interface Authorization extends Condition {

  /** Returns the response to a request that does not meet it: 401, or 403. */
  Response challenge(Received received);
}
