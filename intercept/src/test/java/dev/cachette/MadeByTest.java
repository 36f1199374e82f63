// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.calls.Call;
import dev.cachette.calls.MadeBy;
import dev.cachette.calls.MadeBy.Evidence;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.HttpURLConnection;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandler;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.Timer;
import java.util.TimerTask;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.LinkedTransferQueue;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.opentest4j.AssertionFailedError;

/** Calls know the test that made them, over threads that live longer than tests. */
class MadeByTest {

  private static final String TIDES = "http://tides.example/v1";

  static {
    // As in a test run, where JUnit does this before the first test.
    Cachette.prepare();
  }

  private static final ExecutorService POOL = Executors.newFixedThreadPool(2);
  private static final ScheduledExecutorService SCHEDULED = Executors.newScheduledThreadPool(1);
  private static final BodyHandler<Void> DISCARDING = BodyHandlers.discarding();

  /** The work of a thread that works for no test; tasks in this kind of queue are not followed. */
  private static final BlockingQueue<Runnable> OF_NO_TEST = new LinkedTransferQueue<>();

  private static final Timer TIMER = new Timer("harbour-timer", true);
  private static final HttpClient CLIENT = HttpClient.newHttpClient();

  @BeforeAll
  static void startThreadOfNoTest() {
    Thread thread =
        new Thread(
            null,
            () -> {
              try {
                while (true) {
                  OF_NO_TEST.take().run();
                }
              } catch (InterruptedException end) {
                Thread.currentThread().interrupt();
              }
            },
            "stray",
            0,
            false);
    thread.setDaemon(true);
    thread.start();
  }

  @AfterAll
  static void end() {
    POOL.shutdownNow();
    SCHEDULED.shutdownNow();
    TIMER.cancel();
  }

  /** Hands an action over to another thread. */
  @FunctionalInterface
  interface HandOver {

    void run(Runnable action);
  }

  private static final Map<String, HandOver> HAND_OVERS =
      new TreeMap<>(
          Map.of(
              "executor", POOL::execute,
              "submit", POOL::submit,
              "scheduled", action -> SCHEDULED.schedule(action, 1, TimeUnit.MILLISECONDS),
              "timer", action -> TIMER.schedule(task(action), 1),
              "linked queue", action -> worker(new LinkedBlockingQueue<>(), action),
              "array queue", action -> worker(new ArrayBlockingQueue<>(1), action),
              "future on a pool", action -> CompletableFuture.runAsync(action, POOL)));

  private static TimerTask task(Runnable action) {
    return new TimerTask() {
      @Override
      public void run() {
        action.run();
      }
    };
  }

  /** A thread that was started by nobody in particular takes its work from a queue. */
  private static void worker(BlockingQueue<Runnable> queue, Runnable action) {
    Thread worker =
        new Thread(
            null,
            () -> {
              try {
                queue.take().run();
              } catch (InterruptedException end) {
                Thread.currentThread().interrupt();
              }
            },
            "harbour-worker",
            0,
            false);
    worker.start();
    assertTrue(queue.offer(action));
  }

  static List<String> handOvers() {
    return List.copyOf(HAND_OVERS.keySet());
  }

  @ParameterizedTest
  @MethodSource("handOvers")
  void workThatIsHandedOverIsOfItsTest(String way) throws Exception {
    try (Cachette net = Cachette.open()) {
      net.stub("GET " + TIDES).answer(text("04:10"));
      for (String test : List.of("first", "second", "third")) {
        try (Cachette.Scope scope = net.scope("dev.example.TidesTest", test)) {
          CountDownLatch done = new CountDownLatch(1);
          HAND_OVERS
              .get(way)
              .run(
                  () -> {
                    get();
                    done.countDown();
                  });
          assertTrue(done.await(20, TimeUnit.SECONDS));

          MadeBy madeBy = net.calls().only().madeBy();
          assertEquals(Optional.of("TidesTest." + test), madeBy.test(), madeBy::toString);
          assertEquals(Evidence.HANDED_OVER, madeBy.evidence());
          assertFalse(madeBy.thread().orElseThrow().equals(Thread.currentThread().getName()));
        }
      }
    }
  }

  @Test
  void aCallKnowsThreadArrivalAndDuration() {
    try (Cachette net = Cachette.open();
        Cachette.Scope scope = net.scope("dev.example.TidesTest", "reads")) {
      net.stub("GET " + TIDES).answer(text("04:10").delayed(Duration.ofMillis(20)));
      get();

      Call call = net.calls().await(1, Duration.ofSeconds(20)).only();
      assertEquals(
          new MadeBy(
              Optional.of("TidesTest.reads"),
              Optional.of(Thread.currentThread().getName()),
              Evidence.TEST_THREAD),
          call.madeBy());
      assertTrue(call.duration().orElseThrow().compareTo(Duration.ofMillis(20)) >= 0);
      assertTrue(call.arrivedAt().isBefore(net.clock().instant().plusSeconds(1)));
    }
  }

  @ParameterizedTest
  @ValueSource(strings = {TIDES, "https://tides.example/v1"})
  void theClientOfTheJdkKeepsItsCallersApart(String tides) throws Exception {
    try (Cachette net = Cachette.open()) {
      net.stub("GET " + tides).answer(text("04:10"));
      for (String test : List.of("first", "second")) {
        try (Cachette.Scope scope = net.scope("dev.example.TidesTest", test)) {
          String thread = Thread.currentThread().getName();
          List<Future<?>> calls = new ArrayList<>();
          calls.add(CompletableFuture.completedFuture(CLIENT.send(by(tides, thread), DISCARDING)));
          for (int i = 0; i < 10; i++) {
            calls.add(CLIENT.sendAsync(by(tides, thread), DISCARDING));
            calls.add(POOL.submit(() -> CLIENT.send(by(tides, "pool"), DISCARDING)));
            calls.add(CompletableFuture.runAsync(() -> send(by(tides, "stray")), OF_NO_TEST::add));
          }
          for (Future<?> call : calls) {
            call.get(20, TimeUnit.SECONDS);
          }

          Map<String, Set<String>> madeBy = new TreeMap<>();
          net.calls().stream()
              .forEach(
                  call ->
                      madeBy
                          .computeIfAbsent(
                              call.request().headers().first("x-by").orElseThrow(),
                              by -> new TreeSet<>())
                          .add(call.madeBy().evidence() + " " + call.madeBy().test().orElse("")));
          assertEquals(
              Map.of(
                  thread,
                  Set.of("TEST_THREAD TidesTest." + test),
                  "pool",
                  Set.of("HANDED_OVER TidesTest." + test),
                  "stray",
                  Set.of("NONE ")),
              madeBy);
        }
      }
    }
  }

  private static HttpRequest by(String tides, String thread) {
    return HttpRequest.newBuilder(URI.create(tides)).header("x-by", thread).build();
  }

  private static void send(HttpRequest request) {
    try {
      CLIENT.send(request, DISCARDING);
    } catch (IOException | InterruptedException failed) {
      throw new IllegalStateException(failed);
    }
  }

  @Test
  void aThreadThatATestStartedIsAHintOnly() throws Exception {
    try (Cachette net = Cachette.open();
        Cachette.Scope scope = net.scope("dev.example.TidesTest", "starts")) {
      net.stub("GET " + TIDES).answer(text("04:10"));
      Thread thread = new Thread(MadeByTest::get, "poll-1");
      thread.start();
      thread.join();

      assertEquals(
          "thread \"poll-1\", which the test TidesTest.starts started",
          net.calls().only().madeBy().toString());
    }
  }

  @Test
  void aCallOfATestThatIsOverFailsItsClassAndNotTheNextTest() throws Exception {
    CountDownLatch go = new CountDownLatch(1);
    CountDownLatch done = new CountDownLatch(1);
    String[] response = {""};
    Cachette net = Cachette.open();
    net.stub("GET " + TIDES).answer(text("04:10"));
    try (Cachette.Scope first = net.scope("dev.example.TidesTest", "polls")) {
      POOL.execute(
          () -> {
            await(go);
            response[0] = get();
            done.countDown();
          });
    }
    try (Cachette.Scope second = net.scope("dev.example.TidesTest", "reads")) {
      go.countDown();
      assertTrue(done.await(20, TimeUnit.SECONDS));
      net.calls().assertNone();
      assertEquals("04:10", get());
      net.calls().assertCount(1);
    }

    AssertionFailedError failure = assertThrows(AssertionFailedError.class, net::close);
    for (String text : List.of(response[0], failure.getMessage())) {
      assertTrue(
          text.startsWith(
              "Unexpected call: GET http://tides.example/v1 (its test is over: TidesTest.polls)"),
          text);
      assertTrue(text.contains("\nMade by thread \"pool-"), text);
      assertTrue(text.contains("at dev.cachette.MadeByTest") || text.contains("Fix:"), text);
    }
  }

  /** Between two sessions, no test is followed; what one has handed over begins all the same. */
  @Test
  void workThatBeginsBetweenSessionsIsOfItsTest() throws Exception {
    CountDownLatch free = new CountDownLatch(1);
    CountDownLatch begun = new CountDownLatch(1);
    CountDownLatch next = new CountDownLatch(1);
    ExecutorService pool = Executors.newSingleThreadExecutor();
    pool.execute(() -> await(free));
    Cachette first = Cachette.open();
    Future<String> late =
        pool.submit(
            () -> {
              begun.countDown();
              next.await();
              return get();
            });
    first.close();
    free.countDown();
    begun.await();

    try (Cachette second = Cachette.open()) {
      next.countDown();

      assertTrue(late.get().contains("its test is over"), late.get());
      assertTrue(second.calls().isEmpty());
    } finally {
      LateCalls.take();
      pool.shutdown();
    }
  }

  @Test
  void anApplicationMayLiveLongerThanATest() throws Exception {
    CountDownLatch go = new CountDownLatch(1);
    CountDownLatch done = new CountDownLatch(1);
    try (Cachette net = Cachette.open(Settings.defaults().acceptLateCalls(true))) {
      net.stub("GET " + TIDES).answer(text("04:10"));
      try (Cachette.Scope first = net.scope("dev.example.TidesTest", "starts")) {
        POOL.execute(
            () -> {
              await(go);
              get();
              done.countDown();
            });
      }
      try (Cachette.Scope second = net.scope("dev.example.TidesTest", "reads")) {
        go.countDown();
        assertTrue(done.await(20, TimeUnit.SECONDS));
        assertEquals(Optional.of("TidesTest.starts"), net.calls().only().madeBy().test());
      }
    }
  }

  @Test
  void anUnexpectedCallShowsWhereItWasMade() {
    Cachette net = Cachette.open();
    String response = get();

    assertTrue(
        response.contains("\nMade by thread \"" + Thread.currentThread().getName()), response);
    assertThrows(AssertionFailedError.class, net::close);
  }

  private static void await(CountDownLatch latch) {
    try {
      latch.await();
    } catch (InterruptedException end) {
      Thread.currentThread().interrupt();
    }
  }

  private static String get() {
    try {
      HttpURLConnection connection = (HttpURLConnection) URI.create(TIDES).toURL().openConnection();
      boolean fine = connection.getResponseCode() < 400;
      try (var in = fine ? connection.getInputStream() : connection.getErrorStream()) {
        return new String(in.readAllBytes(), StandardCharsets.UTF_8);
      }
    } catch (IOException failed) {
      throw new UncheckedIOException(failed);
    }
  }
}
