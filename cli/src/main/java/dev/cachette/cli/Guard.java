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
 * Who may control: whoever has the token, if there is one; and no page of another site, which a
 * browser on this machine would call for.
 */
final class Guard {

  private final Optional<String> token;

  Guard(Optional<String> token) {
    this.token = token;
  }

  /** Why a request is refused; empty if it is not. */
  Optional<Answer> refusal(Received received) {
    if (isOfAnotherSite(received)) {
      return Optional.of(
          problem(
              403,
              "Requests of pages are refused",
              Map.of("detail", "A page of another site may not control this.")));
    }
    if (token.isPresent() && !isShown(received, token.get())) {
      return Optional.of(
          problem(
                  401,
                  "The token is missing or wrong",
                  Map.of("detail", "Show it as Authorization: Bearer."))
              .header("www-authenticate", "Bearer"));
    }
    return Optional.empty();
  }

  /** A browser says so itself; and a name that is none of this machine's is another site's. */
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
