// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.services;

import com.sun.net.httpserver.HttpExchange;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;

/**
 * The identity service: OAuth 2 (RFC 6749), for a desk with a secret, and for people, whose browser
 * is redirected with a code.
 */
final class Identity extends Service {

  private final String secret;
  private final Set<String> codes = ConcurrentHashMap.newKeySet();
  private final Set<String> tokens = ConcurrentHashMap.newKeySet();

  Identity(String secret, Duration time) {
    super("https://id.example", time);
    this.secret = secret;
  }

  boolean knows(String authorization) {
    return tokens.contains(authorization.replaceFirst("^Bearer ", ""));
  }

  @Override
  Answer answer(HttpExchange call, String body) {
    return call.getRequestURI().getPath().equals("/authorize")
        ? authorize(fields(call.getRequestURI().getRawQuery()))
        : token(fields(body));
  }

  private Answer authorize(Map<String, String> asked) {
    String code = UUID.randomUUID().toString();
    codes.add(code);
    String back =
        asked.get("redirect_uri")
            + "?code="
            + code
            + "&state="
            + URLEncoder.encode(asked.getOrDefault("state", ""), StandardCharsets.UTF_8);
    return new Answer(302, "", "", Map.of("location", back));
  }

  private Answer token(Map<String, String> form) {
    boolean granted =
        form.getOrDefault("grant_type", "").equals("authorization_code")
            ? codes.remove(form.getOrDefault("code", ""))
            : secret.equals(form.get("client_secret"));
    if (!granted) {
      return Answer.json(400, "{\"error\":\"invalid_grant\"}");
    }
    String token = "hbr-" + UUID.randomUUID();
    tokens.add(token);
    return Answer.json(
        200, "{\"access_token\":\"" + token + "\",\"token_type\":\"Bearer\",\"expires_in\":3600}");
  }
}
