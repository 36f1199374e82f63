package dev.cachette.internal.secret;

import dev.cachette.internal.text.PlainName;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;

/**
 * Decides which names denote secrets. Names are compared without case and punctuation.
 *
 * @param more further names that are secret, in plain form
 * @param exceptions names that are not, though they are by default, in plain form
 * @param allowed texts that are not secret, whatever they look like
 */
public record SecretPolicy(Set<String> more, Set<String> exceptions, List<String> allowed) {

  /** The policy without settings. */
  public static final SecretPolicy DEFAULT = new SecretPolicy(Set.of(), Set.of(), List.of());

  private static final Set<String> NAMES =
      Set.of(
          "pass",
          "pw",
          "pwd",
          "psk",
          "pin",
          "otp",
          "totp",
          "cvc",
          "cvv",
          "cvv2",
          "jwt",
          "tan",
          "assertion",
          "clientassertion",
          "samlresponse",
          "samlrequest",
          "codeverifier",
          "authorization",
          "proxyauthorization",
          "cookie",
          "setcookie",
          "passphrasehint",
          "cardnumber",
          "creditcard",
          "creditcardnumber",
          "mnemonic",
          "sharedaccesssignature",
          "token",
          "secret");

  private static final Pattern ENDING =
      Pattern.compile(
          ".*(?:password|passwd|passphrase|passcode|passkey|passwort|userpass|dbpass|secret|token"
              + "|apikey|accesskey|accesskeyid|accountkey|authkey|privatekey|secretkey|signingkey"
              + "|signkey|encryptionkey|masterkey|sharedkey|licensekey|licencekey|securitykey"
              + "|subscriptionkey|functionskey|serverkey|clientkey|appkey|hmackey|webhookkey"
              + "|passwords|secrets|apikeys|accesskeys|privatekeys|accesstokens|refreshtokens"
              + "|recoverycodes|backupcodes|credential|credentials|sessionid|sessionkey"
              + "|securitycode|recoverycode"
              + "|backupcode|activationcode|verificationcode|onetimecode|signature|pincode"
              + "|sessiontoken|bearertoken|authcode|authorizationcode|userpin)");

  /** A number or a second entry does not make it another thing. */
  private static final Pattern PASSWORD =
      Pattern.compile(
          ".*(?:password|passwd|secret|token|apikey|accesskey|secretkey)"
              + "(?:[0-9]{1,3}|confirm|confirmation|repeat|repeated|again|verify|value|hash|raw)");

  /** Positions in lists, protections of forms in public documentation, and the like. */
  private static final Pattern HARMLESS =
      Pattern.compile(
          ".*(?:next|prev|previous|page|paging|pagination|continuation|cursor|sync|scroll|delta"
              + "|skip|resume|change|cancel|mention|request|idempotency|deduplication"
              + "|client request)token|.*(?:is|has|needs|requires|max|min|total|show|allow|no)"
              + "(?:password|secret|token|pin|signature)|publickey|.*publickey|methodsignature"
              + "|typesignature|emailsignature|mailsignature");

  /**
   * Short names with other meanings elsewhere: {@code code} in JSON is usually an error code. In a
   * URL or a form they are secret.
   */
  private static final Set<String> AS_PARAMETER =
      Set.of("key", "code", "auth", "sig", "sid", "session", "ticket", "devicecode", "phpsessid");

  private static final Pattern HEADER =
      Pattern.compile(
          "x-(?:.*-)?(?:key|session|token|secret|auth|password|passwd|pass|credentials?|jwt"
              + "|otp|pin)"
              + "|.*api-?key|.*-signature(?:-[a-z0-9]+)?|signature|.*-signature-.*"
              + "|x-amz-security-.*");

  private static final Set<String> HARMLESS_HEADERS =
      Set.of(
          "signature-input",
          "x-idempotency-key",
          "x-cache-key",
          "x-surrogate-key",
          "x-partition-key",
          "x-routing-key",
          "x-correlation-key",
          "x-sort-key",
          "x-public-key",
          "x-request-token",
          "x-continuation-token",
          "x-next-token",
          "x-page-token");

  /** Returns true for the name of a secret member, element, attribute, or part of plain text. */
  public boolean isSecret(String name) {
    return name.length() < 100 && isSecretPlain(PlainName.of(name));
  }

  private boolean isSecretPlain(String plain) {
    if (more.contains(plain)) {
      return true;
    }
    return !plain.isEmpty()
        && !exceptions.contains(plain)
        && (NAMES.contains(plain)
            || (ENDING.matcher(plain).matches() || PASSWORD.matcher(plain).matches())
                && !HARMLESS.matcher(plain).matches());
  }

  /** Returns true for the name of a secret query parameter or form field. */
  public boolean isSecretParameter(String name) {
    return isSecret(name) || isShort(name);
  }

  /** Returns true for a short name that is secret as a parameter only. */
  boolean isShort(String name) {
    String plain = PlainName.of(name);
    return AS_PARAMETER.contains(plain) && !exceptions.contains(plain);
  }

  /** Returns true for the name of a secret header. */
  public boolean isSecretHeader(String name) {
    String lower = name.toLowerCase(Locale.ROOT);
    String plain = PlainName.of(name);
    return more.contains(plain)
        || !exceptions.contains(plain)
            && !HARMLESS_HEADERS.contains(lower)
            && (HEADER.matcher(lower).matches() || isSecretPlain(plain));
  }

  /** Returns true if a default such as {@code cookie} is switched off. */
  boolean isExcepted(String name) {
    return exceptions.contains(PlainName.of(name));
  }

  /** Returns true for a text that the user allows. */
  boolean isAllowed(String text) {
    return allowed.stream().anyMatch(text::contains);
  }
}
