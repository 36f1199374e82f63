// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.calls;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** It is a list as any other, and its snapshots never change. */
class GrowingListTest {

  private record Kept(List<Integer> snapshot, List<Integer> expected) {}

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10})
  void itIsAListWithSnapshots(long seed) {
    Random random = new Random(seed);
    GrowingList<Integer> list = new GrowingList<>();
    List<Integer> model = new ArrayList<>();
    List<Kept> kept = new ArrayList<>();
    for (int step = 0; step < 2_000; step++) {
      switch (random.nextInt(step < 1_000 ? 8 : 4)) {
        case 0, 1 -> {
          if (!model.isEmpty()) {
            assertEquals(model.remove(0), list.removeFirst());
          }
        }
        case 2 -> {
          int index = random.nextInt(model.size() + 1);
          model.add(index, step);
          list.insert(index, step);
        }
        default -> {
          model.add(step);
          list.add(step);
        }
      }
      assertEquals(model.size(), list.size());
      assertEquals(model.isEmpty(), list.isEmpty());
      if (random.nextInt(10) == 0) {
        kept.add(new Kept(list.snapshot(), List.copyOf(model)));
      }
    }
    kept.add(new Kept(list.snapshot(), model));
    kept.forEach(each -> assertEquals(each.expected(), each.snapshot()));
  }
}
