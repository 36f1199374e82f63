// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.answer.Answer;
import dev.cachette.answer.AnswerInternals;
import dev.cachette.cassette.Exchange;
import dev.cachette.http.Request;
import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.internal.engine.Capturing;
import dev.cachette.internal.engine.RealCallObserver;
import dev.cachette.internal.engine.RealServiceFailed;
import dev.cachette.internal.engine.ServedServices;
import dev.cachette.internal.engine.StubRule;
import dev.cachette.internal.model.DraftStub;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.internal.wire.ClientHooks;
import dev.cachette.match.RequestPattern;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntSupplier;
import java.util.function.UnaryOperator;

/**
 * Members of this package for other modules of Cachette. Not public API: may change in any release.
 *
 * @hidden
 */
public final class CachetteInternals {

  private static final String PROTOCOL = "HTTP/1.1";

  private CachetteInternals() {}

  /** Adds an observer of one session, until it ends. */
  public static void observe(Cachette net, RunObserver observer) {
    net.session().observers().add(observer);
  }

  /** Returns the Cachette that intercepts in this JVM; empty if none does. */
  public static Optional<Cachette> intercepting() {
    return SessionHooks.owner();
  }

  /** Returns the name of a session: that of its settings, or the line that opened it. */
  public static String name(Cachette net) {
    return net.session().name();
  }

  /** Returns the folder of contract files of a session. */
  public static Path contractFolder(Cachette net) {
    return net.session().settings().contractFolder();
  }

  /**
   * Checks the names of properties, of which those that begin with {@code cachette.} must be known.
   *
   * @param source where they are from, for the message
   * @throws IllegalArgumentException if one is unknown; the message suggests another
   */
  public static void requireKnownProperties(Collection<String> names, String source) {
    SettingsProperties.requireKnown(names, source);
  }

  /** Returns the services of a session that other modules stand in for. */
  public static ServedServices services(Cachette net) {
    return net.session().scopes().services();
  }

  /** Returns the time of a session. */
  public static Clock clock(Cachette net) {
    return net.session().clock();
  }

  /** Captures all calls of a session from now on that no stub answers. */
  public static void capture(Cachette net, Capturing by) {
    net.session().scopes().capture(by);
  }

  /** Sets what knows who makes the calls of a session that intercepts nothing itself. */
  public static void knowClientsBy(Cachette net, ClientHooks clients) {
    net.session().answering().wire().knowClientsBy(clients);
  }

  /** Activates a cassette that is read already, in the current scope. */
  public static void put(Cachette net, LoadedCassette cassette) {
    net.session().put(cassette);
  }

  /**
   * Sends a request to its destination, which is not intercepted, and waits for the response.
   *
   * @throws RealServiceFailed if there is none
   */
  public static Exchange call(Cachette net, Request request) throws RealServiceFailed {
    return net.session().answering().realService().call(request, PROTOCOL);
  }

  /**
   * As {@link #call(Cachette, Request)}, with an observer, which receives the exchange.
   *
   * @throws RealServiceFailed if there is no response
   */
  public static void call(Cachette net, Request request, RealCallObserver observer)
      throws RealServiceFailed {
    net.session().answering().realService().begin(request, PROTOCOL, observer);
  }

  /** Opens an inner scope with a name of its own. */
  public static Cachette.Scope scope(Cachette net, String name) {
    return net.session().enter(place -> true, name)::run;
  }

  /** Ends a scope; returns what it reports. */
  public static Optional<AssertionError> end(Cachette.Scope scope) {
    try {
      scope.close();
      return Optional.empty();
    } catch (AssertionError reported) {
      return Optional.of(reported);
    }
  }

  /**
   * From now on, clients keep no connections over HTTP/1.1 to these origins, and no others: a
   * client that does not notice the end of one in time would not meet a fault before the request.
   */
  public static void keepNoConnections(Cachette net, Set<String> origins) {
    net.session().scopes().connections().keepNone(origins);
  }

  /** Reports a run of a fault sweep to the observers of the session. */
  public static void swept(Cachette net, Map<String, Object> run) {
    net.session().observers().swept(run);
  }

  /**
   * Gives an answer to one call, in the innermost scope; those before it, and after it, get what
   * they would get anyway, and this uses no turn of it.
   *
   * @param pattern the calls among which it is counted
   * @param number the number of the call, from 1
   * @param lasting whether all calls from this one on get the answer
   * @return how many of the calls it has counted
   */
  public static IntSupplier inject(
      Cachette net, RequestPattern pattern, int number, Answer answer, boolean lasting) {
    DraftStub draft = new DraftStub(pattern, Caller.place());
    draft.rename("fault of the sweep");
    draft.overriding();
    List<Answer> answers =
        new ArrayList<>(Collections.nCopies(number - 1, AnswerInternals.passing()));
    answers.add(answer);
    StubSpec spec =
        draft.answeredBy(answers).with(StubSpec.Trait.UNCHECKED).with(StubSpec.Trait.UNLISTED);
    StubRule rule = net.stubs().rule(lasting ? spec : spec.onceEach(), Caller.place(), false);
    net.stubs().replace(net.session().scopes().innermost(), List.of(), List.of(rule));
    return rule::count;
  }

  /** Returns what was declared of a stub. */
  public static StubSpec spec(Stub stub) {
    return stub.rule().spec();
  }

  /** Changes what was declared of a stub. */
  public static void change(Stub stub, UnaryOperator<StubSpec> change) {
    stub.net().stubs().change(stub.rule(), change);
  }
}
