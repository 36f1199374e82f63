// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import dev.cachette.http.Query;
import dev.cachette.http.Request;
import dev.cachette.internal.scan.BodyType;
import dev.cachette.internal.uri.Percent;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/**
 * The parameters of login flows that differ from login to login: the {@code state} of OAuth 2 (RFC
 * 6749), the challenge of PKCE (RFC 7636), the {@code nonce} of OpenID Connect. Known by their
 * names, in requests that have the other parameters of such a flow; anywhere else, {@code state}
 * may be the state of a berth.
 */
final class LoginParameters {

  private static final Set<String> OF_AUTHORIZATION = Set.of("state", "nonce", "code_challenge");
  private static final Set<String> OF_CALLBACK = Set.of("state", "session_state");
  private static final Set<String> OF_LOGOUT = Set.of("state");

  /** One of these comes back with the state. */
  private static final Set<String> RESULTS =
      Set.of("code", "error", "id_token", "access_token", "response");

  private LoginParameters() {}

  /** Replaces the value of a parameter. */
  interface Replacing {

    /**
     * Returns the text of its place, encoded.
     *
     * @param raw the text that is there
     */
    String of(String name, String raw);
  }

  /** Returns the names of those that a query, fragment or form has. */
  private static Set<String> names(Query all) {
    Set<String> names = new TreeSet<>(all.names());
    if (names.contains("client_id") && names.contains("response_type")) {
      names.retainAll(OF_AUTHORIZATION);
    } else if (RESULTS.stream().anyMatch(names::contains) && names.contains("state")) {
      names.retainAll(OF_CALLBACK);
    } else if (names.contains("id_token_hint") || names.contains("post_logout_redirect_uri")) {
      names.retainAll(OF_LOGOUT);
    } else {
      names.clear();
    }
    return names;
  }

  /** Returns the values of those of a request, by name: from its URL, and from its form. */
  static Map<String, String> values(Request request) {
    Map<String, String> values = new LinkedHashMap<>();
    addValues(request.uri().query(), values);
    if (isForm(request)) {
      addValues(Query.read(request.text()), values);
    }
    return values;
  }

  private static void addValues(Query all, Map<String, String> to) {
    names(all).forEach(name -> all.first(name).ifPresent(value -> to.put(name, value)));
  }

  /** Returns true if the body of a request is a form. */
  static boolean isForm(Request request) {
    return request
        .headers()
        .first("content-type")
        .filter(it -> BodyType.of(it).isForm())
        .isPresent();
  }

  /** Returns a URL with others in its query and its fragment. */
  static String inUrl(String url, Replacing replacing) {
    int query = url.indexOf('?');
    int fragment = url.indexOf('#');
    int end = fragment < 0 ? url.length() : fragment;
    String changed =
        query < 0 || query > end
            ? url.substring(0, end)
            : url.substring(0, query + 1) + inPairs(url.substring(query + 1, end), replacing);
    return fragment < 0 ? changed : changed + "#" + inPairs(url.substring(fragment + 1), replacing);
  }

  /** Returns the pairs of a query or form with other values. */
  static String inPairs(String pairs, Replacing replacing) {
    Set<String> names = names(Query.read(pairs));
    if (names.isEmpty()) {
      return pairs;
    }
    String[] all = pairs.split("&", -1);
    for (int at = 0; at < all.length; at++) {
      int equals = all[at].indexOf('=');
      String name = equals < 0 ? "" : Percent.decodeForm(all[at].substring(0, equals));
      if (names.contains(name)) {
        all[at] =
            all[at].substring(0, equals + 1) + replacing.of(name, all[at].substring(equals + 1));
      }
    }
    return String.join("&", all);
  }
}
