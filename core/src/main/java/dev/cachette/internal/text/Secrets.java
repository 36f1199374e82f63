package dev.cachette.internal.text;

import java.util.Set;

/** Masks tokens and passwords in output, by name. */
public final class Secrets {

  /** The replacement for secrets in messages. */
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

  private Secrets() {}

  /** Returns true if a parameter, field or member of this name is secret. */
  public static boolean isSecret(String name) {
    StringBuilder bare = new StringBuilder(name.length());
    for (int at = 0; at < name.length(); at++) {
      char c = name.charAt(at);
      if (c != '-' && c != '_' && c != '.') {
        bare.append(Character.toLowerCase(c));
      }
    }
    return NAMES.contains(bare.toString());
  }

  /** Returns the masked value for this name. */
  public static String masked(String name, String value) {
    return isSecret(name) ? MASK : value;
  }

  /** Returns a URI or a URL-encoded form with secret values masked. */
  public static String maskedFields(String text) {
    StringBuilder shown = new StringBuilder(text.length());
    int kept = 0;
    for (int equals = text.indexOf('='); equals >= 0; equals = text.indexOf('=', equals + 1)) {
      int end = endOfValue(text, equals + 1);
      if (isSecret(text.substring(startOfName(text, equals), equals)) && end > equals + 1) {
        shown.append(text, kept, equals + 1).append(MASK);
        kept = end;
      }
    }
    return kept == 0 ? text : shown.append(text, kept, text.length()).toString();
  }

  private static int startOfName(String text, int equals) {
    int at = equals;
    while (at > 0 && "?&= ".indexOf(text.charAt(at - 1)) < 0) {
      at--;
    }
    return at;
  }

  private static int endOfValue(String text, int from) {
    int at = from;
    while (at < text.length()
        && text.charAt(at) != '&'
        && !Character.isWhitespace(text.charAt(at))) {
      at++;
    }
    return at;
  }

  /** Returns JSON with secret strings masked; other text is unchanged. */
  public static String maskedMembers(String text) {
    return JsonStrings.changeMembers(text, Secrets::masked);
  }
}
