// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.cassette.Exchange;
import dev.cachette.internal.json.Json;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Reads the claims of signed tokens (RFC 7519) that become placeholders, so that a stand-in for
 * their issuer can sign them again. Claims that differ from login to login are left out.
 */
public final class TokenClaims {

  private static final Pattern SIGNED =
      Pattern.compile("[A-Za-z0-9_-]{8,}\\.([A-Za-z0-9_-]{8,})\\.[A-Za-z0-9_-]*");

  private static final List<String> VARYING =
      List.of(
          "iat", "exp", "nbf", "auth_time", "jti", "sid", "nonce", "at_hash", "c_hash", "s_hash");

  private TokenClaims() {}

  /** Returns an exchange with the claims of received tokens only: it is not sent again. */
  public static Exchange received(Exchange exchange) {
    if (exchange.tokens().isEmpty()) {
      return exchange;
    }
    Map<String, String> received = new TreeMap<>(exchange.tokens());
    received.keySet().retainAll(exchange.response().map(Placeholder::names).orElse(Set.of()));
    return exchange.withTokens(received);
  }

  /** Returns the claims of a token, as JSON; empty if it is not signed, or has no issuer. */
  static Optional<String> of(String token) {
    Matcher signed = SIGNED.matcher(token);
    if (!signed.matches()) {
      return Optional.empty();
    }
    try {
      byte[] payload = Base64.getUrlDecoder().decode(signed.group(1));
      JsonNode claims = Json.tree(new String(payload, StandardCharsets.UTF_8));
      return claims instanceof ObjectNode object && object.path("iss").isTextual()
          ? Optional.of(object.without(VARYING).toString())
          : Optional.empty();
    } catch (IllegalArgumentException other) {
      return Optional.empty();
    }
  }
}
