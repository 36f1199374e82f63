package dev.cachette.internal.text;

import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Takes tokens and passwords out of what is shown, by the names that they go by. */
public final class Secrets {

  /** What stands in messages for what is secret. */
  public static final String MASK = "****";

  private static final Set<String> NAMES =
      Set.of(
          "password",
          "passwd",
          "secret",
          "clientsecret",
          "token",
          "accesstoken",
          "refreshtoken",
          "idtoken",
          "apikey");

  private static final Pattern FIELD = Pattern.compile("(?<=^|[?&])([^=&?\\s]+)=([^&\\s]+)");

  private Secrets() {}

  /** Whether a parameter, field or member of this name is secret. */
  public static boolean isSecret(String name) {
    return NAMES.contains(name.replaceAll("[-_.]", "").toLowerCase(Locale.ROOT));
  }

  /** A value as it is shown under this name. */
  public static String masked(String name, String value) {
    return isSecret(name) ? MASK : value;
  }

  /** A URI or a URL-encoded form with the values of secret fields masked. */
  public static String maskedFields(String text) {
    return text.indexOf('=') < 0
        ? text
        : FIELD
            .matcher(text)
            .replaceAll(
                field ->
                    Matcher.quoteReplacement(
                        field.group(1) + "=" + masked(field.group(1), field.group(2))));
  }

  /** JSON with the texts of secret members masked; other text stays as it is. */
  public static String maskedMembers(String text) {
    return JsonStrings.changeMembers(text, Secrets::masked);
  }
}
