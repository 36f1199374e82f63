// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** The users, and who signs in next. Thread-safe. */
public final class Accounts {

  private Map<String, User> users = new LinkedHashMap<>();
  private @Nullable String next;

  /** Declares a user; no effect if there is one of this name. */
  public synchronized void declare(String name) {
    users.computeIfAbsent(name, User::of);
  }

  /** Sets a claim of a user. */
  public synchronized void claim(String name, String claim, Object value) {
    users.put(name, users.getOrDefault(name, User.of(name)).with(claim, value));
  }

  /** Sets who signs in from now on. */
  public synchronized void signIn(String name) {
    next = name;
  }

  /** Returns all users, to {@link #restore} them. */
  synchronized Map<String, User> declared() {
    return new LinkedHashMap<>(users);
  }

  /** Begins with another test. */
  synchronized void restore(Map<String, User> declared) {
    users = new LinkedHashMap<>(declared);
    next = null;
  }

  /** Returns the user of this name. */
  public synchronized Optional<User> named(String name) {
    return Optional.ofNullable(users.get(name));
  }

  /** Returns the names of all users, in order of declaration. */
  synchronized List<String> names() {
    return List.copyOf(users.keySet());
  }

  /** Returns the user that a hint means, by name or email address; else who signs in next. */
  synchronized Optional<User> signingIn(Optional<String> hint) {
    Optional<User> meant =
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
  synchronized Optional<User> withSubject(String subject) {
    return users.values().stream().filter(user -> user.subject().equals(subject)).findFirst();
  }
}
