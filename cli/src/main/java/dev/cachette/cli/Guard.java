package dev.cachette.cli;

import static dev.cachette.answer.Answers.problem;

import dev.cachette.answer.Answer;
import dev.cachette.internal.uri.Hosts;
import dev.cachette.match.Received;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.Map;
import java.util.Optional;

/**
 * Access control of the control port: requires the token, if there is one; and rejects web pages of
 * other sites, whose scripts a browser on this machine would run.
 */
final class Guard {

  private final Optional<String> token;

  Guard(Optional<String> token) {
    this.token = token;
  }

  /** Returns why a request is rejected; empty if it is allowed. */
  Optional<Answer> refusal(Received received) {
    if (isOfAnotherSite(received)) {
      return Optional.of(
          problem(
              403,
              "Requests from web pages are rejected",
              Map.of("detail", "A page of another site must not control this.")));
    }
    if (token.isPresent() && !isShown(received, token.get())) {
      return Optional.of(
          problem(
                  401,
                  "The token is missing or wrong",
                  Map.of("detail", "Send it as Authorization: Bearer."))
              .header("www-authenticate", "Bearer"));
    }
    return Optional.empty();
  }

  /** Browsers say so themselves; and a Host header with another name is from another site. */
  private boolean isOfAnotherSite(Received received) {
    boolean crossSite =
        received
            .header("sec-fetch-site")
            .filter(site -> !site.equals("same-origin") && !site.equals("none"))
            .isPresent();
    String host = received.request().uri().host();
    boolean foreignName = token.isEmpty() && !Hosts.isAddress(host) && !host.equals("localhost");
    return crossSite || received.header("origin").isPresent() || foreignName;
  }

  private static boolean isShown(Received received, String token) {
    return received
        .header("authorization")
        .filter(
            shown ->
                MessageDigest.isEqual(
                    shown.getBytes(StandardCharsets.UTF_8),
                    ("Bearer " + token).getBytes(StandardCharsets.UTF_8)))
        .isPresent();
  }
}
