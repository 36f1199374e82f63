// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import dev.cachette.internal.content.Cookies;
import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Optional;

/** Who has signed in at the provider. Without its page, that is at once who the test says. */
final class SignIns {

  private static final String COOKIE = "identity-session";

  private SignIns() {}

  /**
   * A user who has signed in.
   *
   * @param at when
   */
  record SignIn(User user, Instant at) {

    /** Returns the cookie by which the provider remembers it. */
    String cookie() {
      return COOKIE
          + "="
          + URLEncoder.encode(user.name(), StandardCharsets.UTF_8)
          + "."
          + at.getEpochSecond()
          + "; Path=/; HttpOnly; SameSite=Lax";
    }
  }

  /** Returns the cookie that ends a session. */
  static String endingCookie() {
    return COOKIE + "=; Path=/; Max-Age=0; HttpOnly; SameSite=Lax";
  }

  /** Returns who signs in with this authorization request; empty if a page has to ask. */
  static Optional<SignIn> of(IdentityCall call) {
    Optional<String> chosen = call.parameter(Pages.CHOSEN);
    if (!call.provider().showsPage()) {
      return call.provider()
          .accounts()
          .signingIn(call.parameter("login_hint"))
          .map(user -> new SignIn(user, call.now()));
    }
    if (chosen.isPresent()) {
      return call.provider()
          .accounts()
          .named(chosen.get())
          .map(user -> new SignIn(user, call.now()));
    }
    boolean asksAgain =
        call.parameter("prompt").filter(it -> it.matches("login|select_account")).isPresent();
    return asksAgain ? Optional.empty() : remembered(call).filter(it -> isRecent(it, call));
  }

  private static boolean isRecent(SignIn signIn, IdentityCall call) {
    return call.parameter("max_age")
        .filter(it -> it.matches("[0-9]{1,9}"))
        .map(Long::parseLong)
        .map(seconds -> signIn.at().plusSeconds(seconds).isAfter(call.now()))
        .orElse(true);
  }

  private static Optional<SignIn> remembered(IdentityCall call) {
    return Cookies.in(call.request()).all(COOKIE).stream()
        .findFirst()
        .filter(it -> it.matches("[^.]+\\.[0-9]{1,12}"))
        .flatMap(
            it -> {
              int dot = it.lastIndexOf('.');
              String name = URLDecoder.decode(it.substring(0, dot), StandardCharsets.UTF_8);
              Instant at = Instant.ofEpochSecond(Long.parseLong(it.substring(dot + 1)));
              return call.provider().accounts().named(name).map(user -> new SignIn(user, at));
            });
  }
}
