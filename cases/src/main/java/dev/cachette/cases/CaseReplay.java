// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import dev.cachette.Cachette;
import dev.cachette.cassette.Redaction;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.cases.file.CaseFile;
import dev.cachette.internal.cases.file.CaseFolder;
import dev.cachette.internal.cases.run.CaseAnswers;
import dev.cachette.internal.cases.run.CaseRun;
import dev.cachette.internal.cases.run.ReplaySettings;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.replay.CaseResult;
import dev.cachette.replay.ReplayResult;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Predicate;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.DynamicNode;

/**
 * Replays cases: sends the incoming requests to the application, answers its outgoing calls from
 * the case, and compares the response, and what was called.
 *
 * <p>It uses the Cachette that intercepts in this JVM; if there is none, it opens one. For one
 * thread; cases are replayed one after the other.
 */
public final class CaseReplay implements Iterable<DynamicNode> {

  /** Updates files if it is {@code update}. */
  static final String PROPERTY = "cachette.cases";

  private static final String UPDATE = "update";

  private final CaseFolder folder;
  private final Uri application;
  private final List<UnaryOperator<Request>> changes = new ArrayList<>();
  private Predicate<String> wanted = name -> true;
  private Redaction secrets = Redaction.byDefault();
  private @Nullable Cachette net;
  private boolean updates = UPDATE.equals(updating());

  CaseReplay(CaseFolder folder, Uri application) {
    this.folder = folder;
    this.application = application;
  }

  private static String updating() {
    String value = System.getProperty(PROPERTY, "");
    if (!value.isEmpty() && !value.equals(UPDATE)) {
      throw Refusals.argument(
          "The property " + PROPERTY + " is \"" + value + "\". Allowed: " + UPDATE + ".");
    }
    return value;
  }

  /** Uses this Cachette, such as one that a program in another process uses as proxy. */
  public CaseReplay with(Cachette other) {
    net = Refusals.given("with(net)", other);
    return this;
  }

  /** Replays only the cases whose names the predicate accepts. */
  public CaseReplay only(Predicate<String> names) {
    wanted = Refusals.given("only(names)", names);
    return this;
  }

  /** Sets a header of each incoming request. */
  public CaseReplay header(String name, String value) {
    Refusals.given("header(name, value)", value);
    return header(name, () -> value);
  }

  /** Sets a header of each incoming request when it is sent: {@code "Bearer " + freshToken()}. */
  public CaseReplay header(String name, Supplier<String> value) {
    Refusals.given("header(name, value)", name);
    Refusals.given("header(name, value)", value);
    return request(
        it -> new Request(it.method(), it.uri(), it.headers().with(name, value.get()), it.body()));
  }

  /** Changes each incoming request before it is sent. */
  public CaseReplay request(UnaryOperator<Request> change) {
    changes.add(Refusals.given("request(change)", change));
    return this;
  }

  /**
   * Sets the value of a secret, for its placeholder <code>{{name}}</code> in the cases.
   *
   * @throws IllegalArgumentException if it is shorter than four characters
   */
  public CaseReplay secret(String name, String value) {
    secrets = secrets.secret(name, value);
    return this;
  }

  /**
   * Updates the files of cases that differ to what the application does now, as the property {@code
   * cachette.cases=update} does.
   */
  public CaseReplay updating(boolean on) {
    updates = on;
    return this;
  }

  /**
   * Returns a dynamic test for each case. Needs {@code junit-jupiter-api}.
   *
   * @throws dev.cachette.cassette.CassetteException if a file is not one of a case
   * @throws IllegalStateException if there is no case
   */
  public Stream<DynamicNode> tests() {
    Prepared prepared = prepare();
    ReplaySession session = new ReplaySession(Optional.ofNullable(net), prepared.files().size());
    return CaseTests.of(
            prepared.files(), file -> session.run(of -> CaseRun.of(of, file, prepared.settings())))
        .onClose(session::close);
  }

  /** Returns the tests, so that a test factory can return this object. */
  @Override
  public Iterator<DynamicNode> iterator() {
    return tests().iterator();
  }

  /**
   * Replays all cases.
   *
   * @throws dev.cachette.cassette.CassetteException if a file is not one of a case
   * @throws IllegalStateException if there is no case
   */
  public ReplayResult replay() {
    return replay(result -> {});
  }

  /**
   * Replays all cases.
   *
   * @param progress receives each result as soon as it is known
   * @throws dev.cachette.cassette.CassetteException if a file is not one of a case
   * @throws IllegalStateException if there is no case
   */
  public ReplayResult replay(Consumer<CaseResult> progress) {
    Refusals.given("replay(progress)", progress);
    Prepared prepared = prepare();
    List<CaseResult> results = new ArrayList<>();
    ReplaySession session = new ReplaySession(Optional.ofNullable(net), prepared.files().size());
    try {
      for (CaseFile file : prepared.files()) {
        CaseResult result = session.run(of -> CaseRun.of(of, file, prepared.settings()));
        results.add(result);
        progress.accept(result);
      }
    } finally {
      session.close();
    }
    return new ReplayResult(results);
  }

  private record Prepared(List<CaseFile> files, ReplaySettings settings) {}

  private Prepared prepare() {
    List<CaseFile> all = folder.read();
    List<CaseFile> files =
        all.stream()
            .filter(file -> !file.content().isBackground())
            .filter(file -> wanted.test(file.content().name()))
            .toList();
    if (files.isEmpty()) {
      throw Refusals.state(
          String.format(
              "There is no case in %s%s.%nFix: capture some with cachette capture --to %s.",
              folder.path().toAbsolutePath(),
              all.isEmpty() ? "" : " with a name that only(...) accepts",
              folder.path()));
    }
    Set<String> destinations = CaseAnswers.destinations(all, application.origin());
    List<CaseFile> background = all.stream().filter(it -> it.content().isBackground()).toList();
    return new Prepared(
        files,
        new ReplaySettings(application, changes, secrets, destinations, background, updates));
  }

  /** Returns folder and application. */
  @Override
  public String toString() {
    return "The cases in " + folder.path() + " against " + application.origin();
  }
}
