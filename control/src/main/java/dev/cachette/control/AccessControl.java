// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import static dev.cachette.answer.Answers.problem;

import dev.cachette.answer.Answer;
import dev.cachette.match.Received;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * Access control of the control port: requires the token, if there is one; and rejects web pages of
 * other sites, whose scripts a browser on this machine would run.
 */
final class AccessControl {

  /** Of IPv4 or IPv6; no name that another site can let stand for this machine. */
  private static final Pattern ADDRESS =
      Pattern.compile("[0-9]{1,3}(\\.[0-9]{1,3}){3}|[0-9a-fA-F:.%]*:[0-9a-fA-F:.%]*");

  private final Optional<String> token;

  AccessControl(Optional<String> token) {
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

  /** Browsers say so themselves; and a Host header with another name, or two, is from another. */
  private boolean isOfAnotherSite(Received received) {
    boolean crossSite =
        received
            .header("sec-fetch-site")
            .filter(site -> !site.equals("same-origin") && !site.equals("none"))
            .isPresent();
    List<String> hosts = received.request().headers().all("host");
    boolean foreignName = token.isEmpty() && !isLocalName(received.request().uri().host());
    boolean foreignHeader =
        token.isEmpty() && !hosts.stream().allMatch(AccessControl::isLocalAuthority);
    return crossSite
        || received.header("origin").filter(origin -> !isOwn(origin, hosts)).isPresent()
        || hosts.size() > 1
        || foreignName
        || foreignHeader;
  }

  /** The live page is at this port itself. */
  private static boolean isOwn(String origin, List<String> hosts) {
    return hosts.size() == 1 && origin.equalsIgnoreCase("http://" + hosts.get(0));
  }

  private static boolean isLocalName(String host) {
    return host.equalsIgnoreCase("localhost") || ADDRESS.matcher(host).matches();
  }

  /** A host with or without a port (RFC 9110 section 7.2). */
  private static boolean isLocalAuthority(String header) {
    int port = header.lastIndexOf(':');
    boolean hasPort = port > header.lastIndexOf(']');
    String host = hasPort ? header.substring(0, port) : header;
    boolean bracketed = host.startsWith("[") && host.endsWith("]");
    return isLocalName(bracketed ? host.substring(1, host.length() - 1) : host);
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
