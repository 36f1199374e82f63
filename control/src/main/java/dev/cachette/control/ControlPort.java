// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import static dev.cachette.answer.Answers.classpath;
import static dev.cachette.answer.Answers.computed;
import static dev.cachette.answer.Answers.json;
import static dev.cachette.answer.Answers.problem;
import static dev.cachette.answer.Answers.status;
import static dev.cachette.answer.Answers.text;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.Cachette;
import dev.cachette.Messages;
import dev.cachette.Settings;
import dev.cachette.UnexpectedCalls;
import dev.cachette.UnusedStubs;
import dev.cachette.answer.Answer;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.calls.Call;
import dev.cachette.calls.Calls;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import dev.cachette.internal.fields.Durations;
import dev.cachette.match.Received;
import dev.cachette.stubfile.StubFileException;
import dev.cachette.stubfile.StubFileProblem;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.opentest4j.AssertionFailedError;

/**
 * Lets other programs add and remove stubs, and read calls, over HTTP and JSON; for everything that
 * is served, or for one session. It is a Cachette with computed answers itself.
 */
public final class ControlPort {

  private static final int MOST_CALLS = 1_000;
  private static final Duration LONGEST = Duration.ofMinutes(1);
  private static final String SESSION = "/sessions/{session}";

  private final Controlled main;
  private final ControlledSessions sessions;
  private final Cachette own;
  private @Nullable Supplier<JsonNode> contracts;
  private @Nullable CaseControl cases;
  private final AccessControl access;

  /**
   * Prepares a control port.
   *
   * @param at the address to listen on
   * @param token which callers must send; null if they need none
   */
  public ControlPort(
      Controlled main, ControlledSessions sessions, InetSocketAddress at, @Nullable String token) {
    this.main = main;
    this.sessions = sessions;
    this.access = new AccessControl(Optional.ofNullable(token));
    this.own =
        Cachette.open(
            Settings.defaults()
                .name("the control port")
                .withoutInterception()
                .livePage(-1)
                .unexpectedCalls(UnexpectedCalls.WARN)
                .unusedStubs(UnusedStubs.IGNORE)
                .maxCalls(1)
                .listenAddress(at));
  }

  /** Shows which versions work together, by a store of contracts; before it starts. */
  public ControlPort contracts(Supplier<JsonNode> tables) {
    contracts = tables;
    return this;
  }

  /** Shows and changes cases; before it starts. */
  public ControlPort cases(CaseControl captured) {
    cases = captured;
    return this;
  }

  /**
   * Starts it; returns the base URL.
   *
   * @throws IllegalStateException if the port is taken
   */
  public String open() {
    LivePage.addTo(own);
    own.stub("GET /openapi.json").answer(classpath("dev/cachette/control/control.openapi.json"));
    own.stub("GET /schema.json")
        .answer(
            classpath("cachette-stubs.schema.json")
                .header("content-type", "application/schema+json"));
    answer("GET /filters", received -> json(Map.of("fields", CallFilter.described())));
    answer("POST /sessions", received -> json(sessions.begin()).status(201));
    answer("GET /sessions", received -> json(Map.of("sessions", sessions.all())));
    answer(
        "DELETE " + SESSION,
        received ->
            sessions
                .end(received.variable("session"))
                .<Answer>map(it -> json(it))
                .orElseGet(() -> noSession(received)));
    forEach("GET", "/stubs", ControlPort::stubs);
    forEach(
        "GET",
        "/stubs/all",
        (of, received) -> json(Map.of("stubs", of.inForce(), "changes", of.changes())));
    forEach("GET", "/sources", (of, received) -> json(of.sources()));
    forEach("GET", "/messages", (of, received) -> json(messages()));
    answer("GET /compat", received -> compatibility());
    new CaseResources(Optional.ofNullable(cases)).addTo(this::answer);
    forEach("POST", "/stubs", ControlPort::add);
    forEach("GET", "/stubs/{id}", ControlPort::added);
    forEach("PUT", "/stubs/{id}", ControlPort::replace);
    forEach("PUT", "/stubs/{id}/active", ControlPort::switched);
    forEach("DELETE", "/stubs/{id}", ControlPort::remove);
    forEach("GET", "/calls", ControlPort::calls);
    forEach("GET", "/calls/{number}", ControlPort::call);
    forEach("GET", "/calls/events", ControlPort::events);
    forEach("DELETE", "/calls", (of, received) -> done(of::clearCalls));
    forEach("GET", "/calls/count", ControlPort::count);
    forEach("GET", "/verdict", (of, received) -> json(of.verdict()));
    forEach("POST", "/reset", (of, received) -> done(of::reset));
    answer("* /{+rest}", ControlPort::nothing);
    try {
      return own.baseUrl();
    } catch (RuntimeException taken) {
      own.close();
      throw taken;
    }
  }

  /** Closes the port. */
  public void close() {
    main.events().close();
    try {
      own.close();
    } catch (AssertionError told) {
      // Whatever was asked was answered.
    }
  }

  /** Answers for everything that is served, and for each session. */
  private void forEach(
      String method, String path, BiFunction<Controlled, Received, Answer> function) {
    answer(method + " " + path, received -> function.apply(main, received));
    answer(
        method + " " + SESSION + path,
        received ->
            sessions
                .get(received.variable("session"))
                .map(session -> function.apply(session, received))
                .orElseGet(() -> noSession(received)));
  }

  private void answer(String line, Function<Received, Answer> function) {
    own.stub(line)
        .answer(
            computed(
                received -> access.refusal(received).orElseGet(() -> tried(function, received))));
  }

  /** Wrong requests are answered, and are not failures. */
  private static Answer tried(Function<Received, Answer> function, Received received) {
    try {
      return function.apply(received);
    } catch (StubFileException wrong) {
      return problem(
          400,
          "Invalid stubs",
          Map.of(
              "detail",
              wrong.getMessage(),
              "problems",
              wrong.problems().stream().map(ControlPort::asJson).toList()));
    } catch (IllegalArgumentException wrong) {
      return problem(400, "Invalid request", detail(wrong));
    } catch (IllegalStateException | AssertionFailedError impossible) {
      return problem(409, "Failed", detail(impossible));
    }
  }

  private static Map<String, String> detail(Throwable failure) {
    return Map.of("detail", String.valueOf(failure.getMessage()));
  }

  private static Map<String, Object> asJson(StubFileProblem problem) {
    Map<String, Object> json = new LinkedHashMap<>();
    json.put("line", problem.line());
    json.put("column", problem.column());
    json.put("path", problem.path());
    json.put("message", problem.message());
    return json;
  }

  /** Returns the last warnings, which are of the JVM, not of a session. */
  private static Map<String, Object> messages() {
    return Map.of(
        "messages",
        Messages.last().stream()
            .map(it -> Map.of("at", it.at().toString(), "text", it.text()))
            .toList());
  }

  /** Returns the tables of a store of contracts, read anew. */
  private Answer compatibility() {
    Supplier<JsonNode> store = contracts;
    return store == null
        ? problem(
            404,
            "No store of contracts",
            Map.of("detail", "There is no store of contracts. Fix: cachette serve --store STORE"))
        : json(Map.of("pairs", store.get()));
  }

  private static Answer done(Runnable action) {
    action.run();
    return status(204);
  }

  /** Returns all active stubs as a stub file; or the added ones as JSON, if that is accepted. */
  private static Answer stubs(Controlled of, Received received) {
    boolean asJson =
        received.header("accept").filter(it -> it.contains("application/json")).isPresent();
    return asJson
        ? json(Map.of("added", of.added()))
        : ResponseAnswer.of(
            new Response(
                200,
                Headers.none().with("content-type", "application/yaml"),
                Body.of(of.net().toStubFile())));
  }

  private static Answer add(Controlled of, Received received) {
    Map<String, Object> added = of.add(received.text());
    String location = received.request().uri().path() + "/" + added.get("id");
    return json(added).status(201).header("location", location);
  }

  private static Answer added(Controlled of, Received received) {
    return found(of.added(id(received)));
  }

  private static Answer replace(Controlled of, Received received) {
    return found(of.replace(id(received), received.text()));
  }

  private static Answer switched(Controlled of, Received received) {
    String active = received.text().strip();
    if (!active.equals("true") && !active.equals("false")) {
      throw new IllegalArgumentException(
          "The body is \"" + active + "\". Allowed: true, which switches the stubs on, and false.");
    }
    return found(of.setActive(id(received), active.equals("true")));
  }

  private static Answer remove(Controlled of, Received received) {
    return of.remove(id(received)) ? status(204) : noStubs();
  }

  private static Answer found(Optional<Map<String, Object>> stubs) {
    return stubs.<Answer>map(it -> json(it)).orElseGet(ControlPort::noStubs);
  }

  private static Answer noStubs() {
    return problem(
        404,
        "No such stubs",
        Map.of("detail", "GET /stubs lists them, with Accept: application/json."));
  }

  /** Returns the number in the path; no stubs have the number 0. */
  private static int id(Received received) {
    String id = received.variable("id");
    return id.matches("[0-9]{1,9}") ? Integer.parseInt(id) : 0;
  }

  /** Returns calls; only the last ones if there are many. */
  private static Answer calls(Controlled of, Received received) {
    List<Map<String, Object>> calls = wanted(of, received).stream().map(CallJson::of).toList();
    int limit = number(received, "limit", MOST_CALLS);
    Map<String, Object> told = new LinkedHashMap<>();
    told.put("count", calls.size());
    told.put("calls", calls.subList(Math.max(0, calls.size() - limit), calls.size()));
    return json(told);
  }

  private static Answer call(Controlled of, Received received) {
    String number = received.variable("number");
    Optional<Call> found =
        number.matches("[0-9]{1,18}") ? of.call(Long.parseLong(number)) : Optional.empty();
    return found
        .map(call -> told(call, received.query("as").orElse("json")))
        .orElseGet(
            () ->
                problem(
                    404,
                    "No such call",
                    Map.of("detail", "GET /calls lists those that are still known.")));
  }

  private static Answer told(Call call, String as) {
    return as.equals("json") ? json(CallJson.of(call)) : text(CallAs.of(as, call));
  }

  /** Streams calls as they arrive. */
  private static Answer events(Controlled of, Received received) {
    CallFilter filter = CallFilter.of(received.query("filter").orElse(""));
    return of.events().subscribe(filter, number(received, "after", 0));
  }

  /** Returns their number; waits for a number of them if requested. */
  private static Answer count(Controlled of, Received received) {
    int atLeast = number(received, "atLeast", 0);
    Duration within = within(received);
    Calls calls = wanted(of, received);
    boolean met = true;
    if (atLeast > 0) {
      try {
        calls.await(atLeast, within);
      } catch (AssertionError tooFew) {
        met = false;
      }
    }
    Map<String, Object> told = new LinkedHashMap<>();
    told.put("count", calls.stream().count());
    told.put("met", met);
    return json(told);
  }

  private static Calls wanted(Controlled of, Received received) {
    Calls calls = of.calls();
    Optional<String> filter = received.query("filter");
    if (filter.isPresent()) {
      CallFilter selecting = CallFilter.of(filter.get());
      calls = calls.matching("a call that the filter selects", selecting::selects);
    }
    Optional<String> line = received.query("request");
    if (line.isPresent()) {
      calls = calls.matching(line.get());
    }
    Optional<String> unexpected = received.query("unexpected");
    if (unexpected.filter(it -> !it.equals("true")).isPresent()) {
      throw new IllegalArgumentException(
          "unexpected can only be true, not " + unexpected.get() + ".");
    }
    return unexpected.isPresent()
        ? calls.matching("an unexpected call", CallJson::isUnexpected)
        : calls;
  }

  private static Duration within(Received received) {
    Duration within = received.query("within").map(Durations::parse).orElse(Duration.ofSeconds(5));
    if (within.compareTo(LONGEST) > 0) {
      throw new IllegalArgumentException("within is at most one minute, not " + within + ".");
    }
    return within;
  }

  private static int number(Received received, String name, int otherwise) {
    Optional<String> text = received.query(name);
    if (text.isPresent() && !text.get().matches("[0-9]{1,9}")) {
      throw new IllegalArgumentException(name + " must be a whole number, not " + text.get() + ".");
    }
    return text.map(Integer::parseInt).orElse(otherwise);
  }

  private static Answer noSession(Received received) {
    return problem(
        404,
        "No such session",
        Map.of(
            "detail",
            "There is no session "
                + received.variable("session")
                + ", or it has ended."
                + " POST /sessions begins one."));
  }

  private static Answer nothing(Received received) {
    String asked = received.request().method() + " " + received.request().uri().path();
    return problem(
        404,
        "Not found",
        Map.of("detail", asked + " does not exist. GET /openapi.json describes the resources."));
  }
}
