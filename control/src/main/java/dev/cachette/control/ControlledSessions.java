// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import dev.cachette.Cachette;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;

/**
 * Sessions of tests that run in parallel: each has the served files, a port, stubs and calls of its
 * own. Thread-safe.
 */
public final class ControlledSessions {

  private static final int MOST = 200;

  private final Supplier<Cachette> opening;
  private final Map<String, Controlled> open = new ConcurrentHashMap<>();

  /**
   * Creates an empty list.
   *
   * @param opening opens a Cachette with the served files, on a free port
   */
  public ControlledSessions(Supplier<Cachette> opening) {
    this.opening = opening;
  }

  /**
   * Begins a session.
   *
   * @throws IllegalStateException if there are too many
   */
  Map<String, Object> begin() {
    if (open.size() >= MOST) {
      throw new IllegalStateException(
          MOST + " sessions are open. Fix: end each with DELETE /sessions/{session}.");
    }
    String id = ControlToken.create().substring(0, 12);
    Controlled session = new Controlled(opening.get());
    open.put(id, session);
    return json(id, session);
  }

  Optional<Controlled> get(String id) {
    return Optional.ofNullable(open.get(id));
  }

  List<Map<String, Object>> all() {
    return open.entrySet().stream().map(it -> json(it.getKey(), it.getValue())).toList();
  }

  /** Ends a session; returns its verdict. */
  Optional<Map<String, Object>> end(String id) {
    Controlled session = open.remove(id);
    if (session == null) {
      return Optional.empty();
    }
    Map<String, Object> verdict = session.verdict();
    session.close();
    return Optional.of(verdict);
  }

  /** Ends all of them. */
  public void close() {
    open.keySet().forEach(this::end);
  }

  private static Map<String, Object> json(String id, Controlled session) {
    Map<String, Object> json = new LinkedHashMap<>();
    json.put("id", id);
    json.put("baseUrl", session.net().baseUrl());
    // One port is both.
    json.put("proxy", session.net().baseUrl());
    json.put("calls", session.calls().count());
    return json;
  }
}
