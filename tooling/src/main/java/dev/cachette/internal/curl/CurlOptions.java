// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.curl;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Splits the words of a curl command into options with their values, and URLs. */
final class CurlOptions {

  /** Short options with a value. */
  private static final Map<Character, String> SHORT =
      Map.ofEntries(
          Map.entry('X', "request"),
          Map.entry('H', "header"),
          Map.entry('d', "data"),
          Map.entry('F', "form"),
          Map.entry('T', "upload-file"),
          Map.entry('e', "referer"),
          Map.entry('A', "user-agent"),
          Map.entry('b', "cookie"),
          Map.entry('u', "user"),
          Map.entry('r', "range"));

  /** Other short options with a value, none of which matters for a stub. */
  private static final String OTHER_SHORT = "CcDEhKmoPQtUwxYyz";

  private static final Map<Character, String> SHORT_FLAGS =
      Map.of('G', "get", 'I', "head", ':', "next");

  /** Long options with a value, besides those of {@link #SHORT}; from curl's manual. */
  private static final Set<String> WITH_VALUE =
      Set.of(
          ("""
          abstract-unix-socket alt-svc aws-sigv4 cacert capath cert cert-type ciphers config \
          connect-timeout connect-to continue-at cookie-jar create-file-mode crlfile curves \
          data-ascii data-binary data-raw data-urlencode delegation dns-interface dns-ipv4-addr \
          dns-ipv6-addr dns-servers doh-url dump-header ech egd-file engine etag-compare etag-save \
          expect100-timeout form-string ftp-account ftp-alternative-to-user ftp-method ftp-port \
          ftp-ssl-ccc-mode happy-eyeballs-timeout-ms haproxy-clientip hostpubmd5 hostpubsha256 \
          hsts interface ip-tos ipfs-gateway json keepalive-cnt keepalive-time key key-type krb \
          libcurl limit-rate local-port login-options mail-auth mail-from mail-rcpt max-filesize \
          max-redirs max-time netrc-file noproxy oauth2-bearer output output-dir parallel-max pass \
          pinnedpubkey preproxy proto proto-default proto-redir proxy proxy-cacert proxy-capath \
          proxy-cert proxy-cert-type proxy-ciphers proxy-crlfile proxy-header proxy-key \
          proxy-key-type proxy-pass proxy-pinnedpubkey proxy-service-name proxy-tls13-ciphers \
          proxy-tlsauthtype proxy-tlspassword proxy-tlsuser proxy-user proxy1.0 pubkey quote \
          random-file rate request-target resolve retry retry-delay retry-max-time sasl-authzid \
          service-name socks4 socks4a socks5 socks5-gssapi-service socks5-hostname speed-limit \
          speed-time stderr telnet-option tftp-blksize time-cond tls-max tls13-ciphers tlsauthtype \
          tlspassword tlsuser trace trace-ascii trace-config unix-socket url url-query variable \
          vlan-priority write-out\
          """)
              .split(" "));

  private CurlOptions() {}

  /**
   * An option or a URL.
   *
   * @param name its long name, without dashes; "url" for a URL
   * @param value its value; empty without one
   */
  record Option(String name, String value) {}

  /**
   * Returns the options.
   *
   * @param words the command, which begins with curl
   * @throws IllegalArgumentException if the value of one is missing
   */
  static List<Option> of(List<String> words) {
    List<Option> options = new ArrayList<>();
    boolean onlyUrls = false;
    for (int at = 1; at < words.size(); at++) {
      String word = words.get(at);
      if (onlyUrls || !word.startsWith("-") || word.equals("-")) {
        options.add(new Option("url", word));
      } else if (word.equals("--")) {
        onlyUrls = true;
      } else if (word.startsWith("--")) {
        String name = word.substring(2);
        boolean valued = WITH_VALUE.contains(name) || SHORT.containsValue(name);
        options.add(new Option(name, valued ? value(words, ++at, word) : ""));
      } else {
        at = addShort(words, at, options);
      }
    }
    return options;
  }

  /** Adds joined short options, {@code -sSLd value}; returns the position of the last value. */
  private static int addShort(List<String> words, int position, List<Option> options) {
    String joined = words.get(position);
    for (int at = 1; at < joined.length(); at++) {
      char letter = joined.charAt(at);
      boolean valued = SHORT.containsKey(letter) || OTHER_SHORT.indexOf(letter) >= 0;
      if (!valued) {
        options.add(new Option(SHORT_FLAGS.getOrDefault(letter, ""), ""));
        continue;
      }
      boolean isHere = at + 1 < joined.length();
      int last = isHere ? position : position + 1;
      String value = isHere ? joined.substring(at + 1) : value(words, last, "-" + letter);
      options.add(new Option(SHORT.getOrDefault(letter, ""), value));
      return last;
    }
    return position;
  }

  private static String value(List<String> words, int at, String option) {
    if (at >= words.size()) {
      throw new IllegalArgumentException("the option " + option + " has no value");
    }
    return words.get(at);
  }
}
