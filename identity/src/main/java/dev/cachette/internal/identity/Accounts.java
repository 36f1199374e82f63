// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import dev.cachette.identity.IdentityUser;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/** The users, and who signs in next. Thread-safe. */
public final class Accounts {

  private final Map<String, IdentityUser> users = new LinkedHashMap<>();
  private @Nullable String next;

  /** Returns the user of this name, which is created if there is none. */
  public synchronized IdentityUser user(String name, Function<String, IdentityUser> creating) {
    return users.computeIfAbsent(name, creating);
  }

  /** Sets who signs in from now on. */
  public synchronized void signIn(String name) {
    next = name;
  }

  /** Begins with another test. */
  synchronized void startAgain() {
    next = null;
  }

  /** Returns the user of this name. */
  public synchronized Optional<IdentityUser> named(String name) {
    return Optional.ofNullable(users.get(name));
  }

  /** Returns the names of all users, in order of declaration. */
  synchronized List<String> names() {
    return new ArrayList<>(users.keySet());
  }

  /** Returns the user that a hint means, by name or email address; else who signs in next. */
  synchronized Optional<IdentityUser> signingIn(Optional<String> hint) {
    Optional<IdentityUser> meant =
        hint.flatMap(
            it ->
                users.values().stream()
                    .filter(user -> user.name().equals(it) || it.equals(user.claims().get("email")))
                    .findFirst());
    return meant
        .or(() -> Optional.ofNullable(next).map(users::get))
        .or(() -> users.values().stream().findFirst());
  }

  /** Returns the user with this subject. */
  synchronized Optional<IdentityUser> withSubject(String subject) {
    return users.values().stream()
        .filter(user -> subject.equals(user.claims().get("sub")))
        .findFirst();
  }
}
