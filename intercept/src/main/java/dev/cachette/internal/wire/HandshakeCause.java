// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import java.security.Provider;
import java.security.Security;
import java.util.Arrays;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** Why a TLS handshake failed, as far as the error of the TLS engine tells, and what helps. */
enum HandshakeCause {
  NO_COMMON_PROTOCOL(
      "protocol_version|supported protocol versions|Client requested protocol",
      "the client and this JVM have no TLS version in common.",
      "let the client offer TLS 1.2 or TLS 1.3."),

  NO_COMMON_CIPHER_SUITE(
      "no cipher suites in common|insufficient_security|handshake_failure"
          + "|No available authentication scheme",
      "the client and this JVM have no cipher suite or signature algorithm in common.",
      "let the client offer the cipher suites of the JVM, as it does by default."),

  NO_COMMON_APPLICATION_PROTOCOL(
      "no_application_protocol|application layer protocol",
      "the client offers neither h2 nor http/1.1 as application protocol (ALPN).",
      "let the client offer h2 or http/1.1."),

  WRONG_NAME(
      "unrecognized_name",
      "the client does not accept the name of the server.",
      "compare the host of the URL with the server name that the client sends (SNI)."),

  PLAIN_TEXT(
      "Unsupported or unrecognized SSL message|not an SSL/TLS record",
      "the client does not speak TLS after its first bytes.",
      "check the scheme of the URL."),

  REFUSED_CERTIFICATE(
      "certificate_unknown|bad_certificate|unknown_ca|unsupported_certificate|access_denied"
          + "|certificate_revoked|certificate_expired|decrypt_error"
          + "|bad_certificate_status_response",
      """
      the client does not use the trust settings of the JVM. If it pins
      certificates or has its own trust manager, it rejects the certificate that Cachette
      issues for this host.\
      """,
      "in this test, use a client without pinning and without its own trust manager."),

  UNKNOWN(
      "",
      "see the message of the client's exception.",
      "create the client with the TLS settings of the JVM in this test.");

  /** The provider of the JDK, whose trust is handled. */
  private static final String OF_THE_JDK = "SunJSSE";

  private final Pattern message;
  private final String cause;
  private final String fix;

  HandshakeCause(String message, String cause, String fix) {
    this.message = Pattern.compile(message, Pattern.CASE_INSENSITIVE);
    this.cause = cause;
    this.fix = fix;
  }

  /** Returns the cause of a failure, by its message. */
  static HandshakeCause of(String message) {
    return Arrays.stream(values())
        .filter(each -> each.message.matcher(message).find())
        .findFirst()
        .orElse(UNKNOWN);
  }

  /** Returns paragraphs for an explanation. */
  String text() {
    return "Likely cause: " + cause + "\n" + otherProviders() + "\nFix: " + fix + "\n";
  }

  /** Names other implementations of TLS, one of which the client may use. */
  private String otherProviders() {
    Provider[] all = Security.getProviders("SSLContext.TLS");
    List<Provider> others =
        Arrays.stream(all == null ? new Provider[0] : all)
            .filter(provider -> !provider.getName().equals(OF_THE_JDK))
            .toList();
    return others.isEmpty()
        ? ""
        : others.stream()
            .map(provider -> provider.getName() + " " + provider.getVersionStr())
            .collect(Collectors.joining(", ", "Other providers of TLS in this JVM: ", ".\n"));
  }
}
