package dev.cachette.cli;

import static dev.cachette.answer.Answers.classpath;
import static dev.cachette.answer.Answers.computed;
import static dev.cachette.answer.Answers.json;
import static dev.cachette.answer.Answers.problem;
import static dev.cachette.answer.Answers.status;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.Stub;
import dev.cachette.StubFiles;
import dev.cachette.UnexpectedCalls;
import dev.cachette.UnusedStubs;
import dev.cachette.answer.Answer;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.calls.Call;
import dev.cachette.calls.Calls;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.stubfile.Durations;
import dev.cachette.match.Received;
import dev.cachette.stubfile.StubFileException;
import dev.cachette.stubfile.StubFileProblem;
import java.net.InetSocketAddress;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.opentest4j.AssertionFailedError;

/**
 * Lets other programs add and remove stubs, and read calls, over HTTP and JSON. It is a Cachette
 * with computed answers itself.
 */
final class Control {

  private static final int MOST_CALLS = 1_000;
  private static final Duration LONGEST = Duration.ofMinutes(1);

  private final Cachette net;
  private final Cachette own;
  private final Guard guard;
  private final Map<String, StubFiles> added = new ConcurrentHashMap<>();
  private final AtomicInteger numbers = new AtomicInteger();

  Control(Cachette net, InetSocketAddress at, @Nullable String token) {
    this.net = net;
    this.guard = new Guard(Optional.ofNullable(token));
    this.own =
        Cachette.open(
            Settings.defaults()
                .name("the control port")
                .withoutInterception()
                .unexpectedCalls(UnexpectedCalls.WARN)
                .unusedStubs(UnusedStubs.IGNORE)
                .maxCalls(1)
                .listenAddress(at));
  }

  /** Starts it; returns the base URL. */
  String open() {
    own.stub("GET /openapi.json").answer(classpath("dev/cachette/cli/control.openapi.json"));
    answer("GET /stubs", this::stubs);
    answer("POST /stubs", this::add);
    answer("DELETE /stubs/{id}", this::drop);
    answer("GET /calls", this::calls);
    answer("GET /calls/count", this::count);
    answer("POST /reset", this::reset);
    answer("* /{+rest}", Control::nothing);
    try {
      return own.baseUrl();
    } catch (RuntimeException taken) {
      own.close();
      throw taken;
    }
  }

  private void answer(String line, Function<Received, Answer> function) {
    own.stub(line)
        .answer(
            computed(
                received -> guard.refusal(received).orElseGet(() -> done(function, received))));
  }

  /** Wrong requests are answered, and are not failures. */
  private static Answer done(Function<Received, Answer> function, Received received) {
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
              wrong.problems().stream().map(Control::asJson).toList()));
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

  /** Returns all active stubs, as a stub file. */
  private Answer stubs(Received received) {
    return ResponseAnswer.of(
        new Response(
            200,
            Headers.none().with("content-type", "application/yaml"),
            Body.of(net.toStubFile())));
  }

  private Answer add(Received received) {
    StubFiles files = net.declare(received.text());
    String id = Integer.toString(numbers.incrementAndGet());
    added.put(id, files);
    Map<String, Object> told = new LinkedHashMap<>();
    told.put("id", id);
    told.put("stubs", files.stubs().stream().map(Stub::toString).toList());
    return json(told).status(201).header("location", "/stubs/" + id);
  }

  private Answer drop(Received received) {
    StubFiles files = added.remove(received.variables().get("id"));
    if (files == null) {
      return problem(404, "No such stubs");
    }
    files.remove();
    return status(204);
  }

  /** Returns the calls of a request line, or all; only the last ones if there are many. */
  private Answer calls(Received received) {
    List<Call> calls = wanted(received).stream().toList();
    int limit = number(received, "limit", MOST_CALLS);
    List<Map<String, Object>> shown =
        calls.subList(Math.max(0, calls.size() - limit), calls.size()).stream()
            .map(Control::asJson)
            .toList();
    Map<String, Object> told = new LinkedHashMap<>();
    told.put("count", calls.size());
    told.put("calls", shown);
    return json(told);
  }

  /** Returns their number; waits for a number of them if requested. */
  private Answer count(Received received) {
    int atLeast = number(received, "atLeast", 0);
    Duration within = within(received);
    Calls calls = wanted(received);
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

  private Calls wanted(Received received) {
    Optional<String> line = received.query().first("request");
    return line.isPresent() ? net.calls(line.get()) : net.calls();
  }

  private static Duration within(Received received) {
    Duration within =
        received.query().first("within").map(Durations::parse).orElse(Duration.ofSeconds(5));
    if (within.compareTo(LONGEST) > 0) {
      throw new IllegalArgumentException("within is at most one minute, not " + within + ".");
    }
    return within;
  }

  private static int number(Received received, String name, int otherwise) {
    Optional<String> text = received.query().first(name);
    if (text.isPresent() && !text.get().matches("[0-9]{1,9}")) {
      throw new IllegalArgumentException(name + " must be a whole number, not " + text.get() + ".");
    }
    return text.map(Integer::parseInt).orElse(otherwise);
  }

  private static Map<String, Object> asJson(Call call) {
    Map<String, Object> json = CallLine.json(call);
    Map<String, String> headers = new LinkedHashMap<>();
    call.headers()
        .forEach(
            it ->
                headers.merge(
                    it.name(), Masking.header(it.name(), it.value()), (a, b) -> a + ", " + b));
    json.put("headers", headers);
    if (!call.body().isEmpty()) {
      json.put("body", body(call));
    }
    if (CallLine.isUnexpected(call)) {
      json.put("explanation", call.response().text());
    }
    return json;
  }

  /** Returns the body, with secrets masked, as JSON if it is JSON, else as a string. */
  private static Object body(Call call) {
    String text = Masking.body(call.headers().first("content-type"), call.text());
    boolean isJson =
        BodyFormats.named(call.headers().first("content-type")).isJson()
            && Json.problemIn(text).isEmpty();
    return isJson ? Json.tree(text) : text;
  }

  private static Answer nothing(Received received) {
    String asked = received.request().method() + " " + received.request().uri().path();
    return problem(
        404,
        "Not found",
        Map.of("detail", asked + " does not exist. GET /openapi.json describes the resources."));
  }

  private Answer reset(Received received) {
    try {
      net.reset();
    } catch (AssertionFailedError told) {
      // Failures were reported when they happened; the scope is a new one.
    }
    added.clear();
    return status(204);
  }
}
