// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.harbour;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Declares cargo to customs, with SOAP 1.1. */
public final class CustomsClient {

  private static final String ENVELOPE =
      """
      <soap:Envelope xmlns:soap="http://schemas.xmlsoap.org/soap/envelope/">
        <soap:Body>
          <c:DeclareCargo xmlns:c="urn:marrow-bay:customs">
            <c:vessel>%s</c:vessel>
            <c:tons>%s</c:tons>
          </c:DeclareCargo>
        </soap:Body>
      </soap:Envelope>
      """;

  private static final Pattern NUMBER = Pattern.compile("<number>([^<]+)</number>");

  private final Http http = new Http();

  /**
   * Declares the cargo of a vessel.
   *
   * @return the number of the declaration
   * @throws HarbourException if customs reject it
   */
  public String declare(String vessel, int tons) {
    String response =
        http.post(
            "https://customs.example/soap",
            "text/xml; charset=utf-8",
            ENVELOPE.formatted(vessel, tons),
            200,
            "SOAPAction",
            "\"urn:marrow-bay:customs:declare\"");
    Matcher number = NUMBER.matcher(response);
    if (!number.find()) {
      throw new HarbourException("customs have sent no number of the declaration");
    }
    return number.group(1);
  }
}
