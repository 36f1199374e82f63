package dev.cachette.internal.cassette;

import dev.cachette.cassette.Redaction;
import java.util.List;
import java.util.Set;

/** Which names usually stand before a secret. */
final class SecretNames {

  private static final Set<String> ANYWHERE =
      Set.of("passwd", "pwd", "pin", "jwt", "assertion", "clientassertion", "codeverifier", "otp");

  private static final List<String> ENDINGS =
      List.of(
          "password",
          "passphrase",
          "secret",
          "token",
          "apikey",
          "accesskey",
          "accesskeyid",
          "privatekey",
          "secretkey",
          "subscriptionkey",
          "functionskey",
          "credential",
          "credentials",
          "sessionid");

  /** Short names, which mean other things elsewhere: a code in JSON is mostly one of an error. */
  private static final Set<String> AS_PARAMETER = Set.of("key", "code", "auth", "sig", "signature");

  private final Redaction rules;

  SecretNames(Redaction rules) {
    this.rules = rules;
  }

  /** Of a header, a member, an element or an attribute. */
  boolean isSecret(String name) {
    String plain = Redaction.plain(name);
    if (rules.spared().contains(plain)) {
      return false;
    }
    return rules.names().contains(plain)
        || ANYWHERE.contains(plain)
        || ENDINGS.stream().anyMatch(plain::endsWith);
  }

  /** Of a parameter in a query, or a field of a form. */
  boolean isSecretParameter(String name) {
    String plain = Redaction.plain(name);
    return isSecret(name)
        || AS_PARAMETER.contains(plain) && !rules.spared().contains(plain)
        || plain.endsWith("signature") && !rules.spared().contains(plain);
  }

  /** Whether what usually is secret of itself is to be left, such as {@code cookie}. */
  boolean isSpared(String name) {
    return rules.spared().contains(Redaction.plain(name));
  }
}
