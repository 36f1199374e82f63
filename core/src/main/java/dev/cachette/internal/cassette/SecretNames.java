package dev.cachette.internal.cassette;

import dev.cachette.cassette.Redaction;
import dev.cachette.internal.text.PlainName;
import java.util.List;
import java.util.Set;

/** Names that usually denote secrets. */
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

  /**
   * Short names, which have other meanings elsewhere: {@code code} in JSON is usually an error
   * code.
   */
  private static final Set<String> AS_PARAMETER = Set.of("key", "code", "auth", "sig", "signature");

  private final Redaction rules;

  SecretNames(Redaction rules) {
    this.rules = rules;
  }

  /** Returns true for the name of a secret header, member, element or attribute. */
  boolean isSecret(String name) {
    String plain = PlainName.of(name);
    if (rules.exceptions().contains(plain)) {
      return false;
    }
    return rules.names().contains(plain)
        || ANYWHERE.contains(plain)
        || ENDINGS.stream().anyMatch(plain::endsWith);
  }

  /** Returns true for the name of a secret query parameter or form field. */
  boolean isSecretParameter(String name) {
    String plain = PlainName.of(name);
    return isSecret(name)
        || AS_PARAMETER.contains(plain) && !rules.exceptions().contains(plain)
        || plain.endsWith("signature") && !rules.exceptions().contains(plain);
  }

  /** Returns true if a default such as {@code cookie} is switched off. */
  boolean isSpared(String name) {
    return rules.exceptions().contains(PlainName.of(name));
  }
}
