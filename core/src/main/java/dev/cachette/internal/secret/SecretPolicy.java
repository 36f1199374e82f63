// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.secret;

import dev.cachette.internal.text.PlainName;
import java.util.Arrays;
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
          "jwtassertion",
          "xjwtassertion",
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
          "secret",
          "secrets",
          "psw",
          "sig",
          "crumb",
          "jenkinscrumb",
          "senha",
          "xwsse",
          "setcookie2",
          "cookie2");

  /** Words after the one that counts: {@code passwordOld}, {@code DB_PASSWORD_PROD}. */
  private static final Set<String> QUALIFIERS =
      Set.of(
          "new",
          "old",
          "current",
          "previous",
          "confirm",
          "confirmation",
          "repeat",
          "repeated",
          "again",
          "verify",
          "value",
          "hash",
          "digest",
          "raw",
          "plain",
          "text",
          "plaintext",
          "string",
          "binary",
          "base64",
          "base",
          "encoded",
          "encrypted",
          "hint",
          "prod",
          "production",
          "staging",
          "dev",
          "test",
          "live",
          "primary",
          "secondary");

  private static final Pattern WORD_START = Pattern.compile("[^A-Za-z0-9]+|(?<=[a-z])(?=[A-Z])");

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
              + "|sessiontoken|bearertoken|authcode|authorizationcode|bearer|csrf|xsrf|hmac"
              + "|pswd|kennwort|motdepasse|contrasena|wachtwoord|privkey|aeskey|rsakey|deskey"
              + "|saltkey|jwtkey|cryptokey|cipherkey|wifikey|deploykey|ingestkey|adminkey|rootkey"
              + "|(?:secret|seed|recovery|backup)phrase"
              + "|(?:access|entry|door|gate|unlock|pairing|otp|mfa|totp|authentication)code"
              + "|(?:key|keystore|store|truststore|smtp|imap|ftp|sftp|db|sql|ldap|redis|mail|user"
              + "|admin|root|login|proxy|http|basic|cert|sudo|account|card|sim|door)"
              + "(?:pass|pw|pwd|pin))");

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
      Set.of(
          "key",
          "code",
          "auth",
          "sign",
          "sid",
          "pat",
          "session",
          "ticket",
          "devicecode",
          "phpsessid",
          "sas",
          "magic",
          "magiclink");

  /** Names of values that are secret only if they look random as well. */
  private static final Pattern OF_RANDOM =
      Pattern.compile(".*(?:key|auth|session|sid|ticket|tokens)");

  /** Names of values that are secret unless they are words. */
  private static final Set<String> OF_MIXED = Set.of("tokens", "cookies");

  private static final Pattern HEADER =
      Pattern.compile(
          "x-(?:.*-)?(?:key|session|token|secret|auth|password|passwd|pass|credentials?|jwt"
              + "|otp|pin|ticket)"
              + "|auth|(?:x-)?authentication|(?:.*-)?key"
              + "|.*-signature(?:-[a-z0-9]+)?|signature|.*-signature-.*"
              + "|x-amz-security-.*");

  private static final Set<String> HARMLESS_HEADERS =
      Set.of(
          "signature-input",
          "idempotency-key",
          "sec-websocket-key",
          "surrogate-key",
          "cache-key",
          "partition-key",
          "routing-key",
          "sort-key",
          "public-key",
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
    if (name.length() >= 100) {
      return false;
    }
    String plain = PlainName.of(name);
    return isSecretPlain(plain)
        || !exceptions.contains(plain) && isSecretPlain(withoutQualifiers(name));
  }

  private static String withoutQualifiers(String name) {
    String[] words = WORD_START.split(name);
    int end = words.length;
    while (end > 1 && QUALIFIERS.contains(words[end - 1].toLowerCase(Locale.ROOT))) {
      end--;
    }
    return PlainName.of(String.join("", Arrays.copyOf(words, end)));
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

  /** Returns true for a name whose value is secret if it looks random, such as {@code dataKey}. */
  boolean isOfRandom(String name) {
    String plain = PlainName.of(name);
    return !exceptions.contains(plain) && OF_RANDOM.matcher(plain).matches();
  }

  /** Returns true for a name whose value is secret unless it is a word. */
  boolean isOfMixed(String name) {
    String plain = PlainName.of(name);
    return !exceptions.contains(plain) && OF_MIXED.contains(plain);
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
            && (HEADER.matcher(lower).matches() || isSecret(name));
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
