// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.uri;

import java.net.IDN;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Hosts in normal form. */
public final class Hosts {

  private static final int GROUPS = 8;
  private static final Pattern IPV6 = Pattern.compile("[0-9a-f:]*:[0-9a-f:]*");
  private static final Pattern ZEROS = Pattern.compile("(?<![0-9a-f])0(?::0)+(?![0-9a-f])");

  private Hosts() {}

  /**
   * Returns a host in lower case, without the dot that marks an absolute name, and in ASCII if it
   * is international ({@code xn--bro-hoa.example}); an IPv6 address, with or without brackets, as
   * in RFC 5952. Malformed hosts, and those that end in an IPv4 address, are unchanged.
   */
  public static String canonical(String host) {
    String lower = host.toLowerCase(Locale.ROOT);
    if (lower.indexOf(':') < 0) {
      return ascii(lower.endsWith(".") ? lower.substring(0, lower.length() - 1) : lower);
    }
    String bare = lower.startsWith("[") && lower.endsWith("]") ? inner(lower) : lower;
    return IPV6.matcher(bare).matches() ? compressed(bare) : bare;
  }

  /** Returns an international name as name services and certificates have it (RFC 5891). */
  private static String ascii(String lower) {
    for (int at = 0; at < lower.length(); at++) {
      if (lower.charAt(at) >= 0x80) {
        try {
          return IDN.toASCII(lower, IDN.ALLOW_UNASSIGNED).toLowerCase(Locale.ROOT);
        } catch (IllegalArgumentException notInternational) {
          return lower;
        }
      }
    }
    return lower;
  }

  /** Returns true if a host is an address, not a name. */
  public static boolean isAddress(String host) {
    return host.indexOf(':') >= 0 || isDigitsAndDots(host);
  }

  private static boolean isDigitsAndDots(String host) {
    for (int at = 0; at < host.length(); at++) {
      char c = host.charAt(at);
      if (c != '.' && (c < '0' || c > '9')) {
        return false;
      }
    }
    return !host.isEmpty();
  }

  private static String inner(String bracketed) {
    return bracketed.substring(1, bracketed.length() - 1);
  }

  private static String compressed(String address) {
    String[] halves = address.split("::", -1);
    String[] head = groups(halves[0]);
    String[] tail = halves.length > 1 ? groups(halves[1]) : new String[0];
    int missing = GROUPS - head.length - tail.length;
    if (halves.length > 2 || missing < 0 || halves.length == 1 && missing > 0) {
      return address;
    }
    StringBuilder all = new StringBuilder();
    append(all, head);
    all.append("0:".repeat(missing));
    append(all, tail);
    all.setLength(all.length() - 1);
    return withoutLongestZeros(all.toString());
  }

  private static String[] groups(String half) {
    return half.isEmpty() ? new String[0] : half.split(":", -1);
  }

  private static void append(StringBuilder all, String[] groups) {
    for (String group : groups) {
      all.append(group.replaceFirst("^0+(?=.)", "")).append(':');
    }
  }

  private static String withoutLongestZeros(String address) {
    Matcher run = ZEROS.matcher(address);
    int start = 0;
    int end = 0;
    while (run.find()) {
      if (run.end() - run.start() > end - start) {
        start = run.start();
        end = run.end();
      }
    }
    if (end == 0) {
      return address;
    }
    String before = address.substring(0, Math.max(0, start - 1));
    String after = address.substring(Math.min(address.length(), end + 1));
    return before + "::" + after;
  }
}
