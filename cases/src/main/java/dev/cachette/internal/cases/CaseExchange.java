// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases;

import dev.cachette.cassette.Exchange;

/**
 * An exchange of a case, with what varies in it by nature.
 *
 * @param exchange the exchange, with placeholders for secrets
 * @param request what varies in its request
 * @param response what varies in its response
 */
public record CaseExchange(Exchange exchange, VaryingPlaces request, VaryingPlaces response) {

  /** Returns an exchange in which nothing varies. */
  public static CaseExchange of(Exchange exchange) {
    return new CaseExchange(exchange, VaryingPlaces.NONE, VaryingPlaces.NONE);
  }

  /** Returns it with another exchange. */
  CaseExchange with(Exchange other) {
    return new CaseExchange(other, request, response);
  }

  /** Returns it with more that varies. */
  CaseExchange varying(VaryingPlaces inRequest, VaryingPlaces inResponse) {
    return new CaseExchange(exchange, request.and(inRequest), response.and(inResponse));
  }
}
