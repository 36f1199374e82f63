// SPDX-License-Identifier: Apache-2.0
package dev.cachette.calls;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.internal.calls.Log;
import java.lang.reflect.Proxy;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Counting bit by bit gives what counting all at once gives. */
class TallyTest {

  private final Map<Call, Boolean> delivered = new IdentityHashMap<>();
  private int tests;
  private final Selection selection =
      Selection.chosen(
          "even",
          call -> {
            tests++;
            return call.method().equals("GET");
          });

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
  void ofALogThatGrowsInAnyOrder(long seed) {
    Random random = new Random(seed);
    List<Call> log = new ArrayList<>();
    Tally tally = new Tally(selection, Call::isDelivered);
    for (int step = 0; step < 400; step++) {
      for (int added = random.nextInt(20); added >= 0; added--) {
        int place = Math.max(0, log.size() - random.nextInt(random.nextInt(4) == 0 ? 400 : 2));
        log.add(place, call(random.nextInt(2), random.nextInt(3) > 0));
      }
      delivered
          .keySet()
          .forEach(call -> delivered.merge(call, random.nextInt(4) == 0, Boolean::logicalOr));

      int expected = (int) log.stream().filter(Call::isDelivered).filter(selection::means).count();
      assertEquals(expected, tally.of(new Log.Entries<>(log, 0, List.of(), List.of())));
    }
  }

  @Test
  void eachCompleteCallIsTestedOnce() {
    List<Call> log = new ArrayList<>();
    Tally tally = new Tally(selection, Call::isDelivered);
    for (int step = 0; step < 5_000; step++) {
      log.add(call(0, true));
    }
    tally.of(new Log.Entries<>(log, 0, List.of(), List.of()));
    tests = 0;

    assertEquals(5_000, tally.of(new Log.Entries<>(log, 0, List.of(), List.of())));
    assertEquals(256, tests);
  }

  @Test
  void droppedCallsStayCounted() {
    List<Call> log = new ArrayList<>();
    Tally tally = new Tally(selection, Call::isDelivered);
    for (int step = 0; step < 1_000; step++) {
      log.add(call(0, true));
    }
    tally.of(new Log.Entries<>(log, 0, List.of(), List.of()));

    assertEquals(
        1_000, tally.of(new Log.Entries<>(log.subList(600, 1_000), 600, List.of(), List.of())));
  }

  private Call call(int kind, boolean complete) {
    Call[] self = new Call[1];
    self[0] =
        (Call)
            Proxy.newProxyInstance(
                Call.class.getClassLoader(),
                new Class<?>[] {Call.class},
                (proxy, method, arguments) ->
                    switch (method.getName()) {
                      case "isDelivered" -> delivered.get(self[0]);
                      case "method" -> kind == 0 ? "GET" : "PUT";
                      default -> throw new UnsupportedOperationException(method.getName());
                    });
    delivered.put(self[0], complete);
    return self[0];
  }
}
