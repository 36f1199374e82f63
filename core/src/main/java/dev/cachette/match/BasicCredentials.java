// SPDX-License-Identifier: Apache-2.0
package dev.cachette.match;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.http.Header;
import dev.cachette.internal.json.StubNodes;
import dev.cachette.internal.text.Quoting;
import dev.cachette.result.Cause;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import java.util.Optional;

/** The user name and password of HTTP Basic authentication (RFC 7617), in UTF-8. */
record BasicCredentials(String user, String password) implements Condition, StubForm {

  @Override
  public Optional<JsonNode> written() {
    ObjectNode form = StubNodes.member("user", StubNodes.text(user));
    return Optional.of(StubNodes.member("basic", form.put("password", password)));
  }

  @Override
  public String description() {
    return "basic credentials of " + Quoting.quote(user) + " with password " + Header.MASK;
  }

  @Override
  public Check check(Received received) {
    String expected = Quoting.quote(user) + " with password " + Header.MASK;
    List<String> sent = credentials(received, "Basic");
    if (sent.isEmpty()) {
      return Check.missed("basic", 0, Difference.of(expected, other(received)));
    }
    String pair = decoded(sent.get(0));
    int colon = pair.indexOf(':');
    if (colon < 0) {
      return Check.missed("basic", 0.3, Difference.of(expected, "not user:password in Base64"));
    }
    String actualUser = pair.substring(0, colon);
    if (actualUser.equals(user) && pair.substring(colon + 1).equals(password)) {
      return Check.held("basic", expected);
    }
    String actual =
        Quoting.quote(actualUser)
            + (actualUser.equals(user)
                ? " with a different password"
                : " with password " + Header.MASK);
    return Check.missed("basic", 0.5, Difference.of(expected, actual));
  }

  /** Returns the credentials after the scheme, of each field with this scheme. */
  static List<String> credentials(Received received, String scheme) {
    String start = scheme + " ";
    return received.request().headers().all("authorization").stream()
        .filter(value -> value.regionMatches(true, 0, start, 0, start.length()))
        .map(value -> value.substring(start.length()).strip())
        .toList();
  }

  /** Returns why there are no credentials of this scheme; empty if there are none at all. */
  static Optional<Cause> absence(Received received, String scheme) {
    return received
        .header("authorization")
        .map(
            value ->
                value.indexOf(' ') < 0
                    ? "the credentials have no scheme: send \"" + scheme + " \" before them"
                    : "the credentials have the scheme " + value.split(" ", 2)[0])
        .map(Cause::certain);
  }

  private static String other(Received received) {
    return received
        .header("authorization")
        .map(
            value ->
                value.indexOf(' ') < 0
                    ? "credentials without a scheme"
                    : "credentials with the scheme " + value.split(" ", 2)[0])
        .orElse(Difference.MISSING);
  }

  private static String decoded(String base64) {
    try {
      return new String(Base64.getDecoder().decode(base64), StandardCharsets.UTF_8);
    } catch (IllegalArgumentException malformed) {
      return "";
    }
  }

  @Override
  public String toString() {
    return description();
  }
}
