// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.calls.Call;
import dev.cachette.control.CallJson;
import dev.cachette.tooling.TerminalText;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ConcurrentSkipListMap;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;

/**
 * Prints calls on a thread of its own, so that a slow terminal or pipe delays no caller. If it
 * cannot keep up, lines are dropped and counted.
 */
final class CallPrinter implements Consumer<Call> {

  private static final int WAITING = 10_000;
  private static final long MILLIS = 20;
  private static final int MOST_REASONS = 20;

  private final BlockingQueue<Call> waiting = new ArrayBlockingQueue<>(WAITING);
  private final AtomicLong calls = new AtomicLong();
  private final AtomicLong unexpected = new AtomicLong();
  private final AtomicLong failed = new AtomicLong();
  private final AtomicLong brokenOff = new AtomicLong();

  /** Why calls failed, with their number. */
  private final Map<String, Integer> reasons = new ConcurrentSkipListMap<>();

  private final AtomicLong leftOut = new AtomicLong();
  private final Output output;
  private final boolean silent;

  CallPrinter(Output output, boolean silent) {
    this.output = output;
    this.silent = silent;
    // Waking it for each call would cost more than answering the call.
    Executors.newSingleThreadScheduledExecutor(
            task -> {
              Thread thread = new Thread(task, "cachette-calls");
              thread.setDaemon(true);
              return thread;
            })
        .scheduleWithFixedDelay(this::print, MILLIS, MILLIS, TimeUnit.MILLISECONDS);
  }

  @Override
  public void accept(Call call) {
    calls.incrementAndGet();
    if (CallJson.isUnexpected(call)) {
      unexpected.incrementAndGet();
    }
    call.failure().ifPresent(why -> fail(call, why));
    if (!silent && !waiting.offer(call)) {
      leftOut.incrementAndGet();
    }
  }

  private void fail(Call call, String why) {
    failed.incrementAndGet();
    if (reasons.size() < MOST_REASONS) {
      String reason =
          call.request().uri().origin() + ": " + TerminalText.of(CallLine.firstLine(why));
      reasons.merge(reason, 1, Integer::sum);
    }
  }

  private synchronized void print() {
    List<Call> batch = new ArrayList<>();
    waiting.drainTo(batch);
    if (batch.isEmpty()) {
      return;
    }
    StringBuilder lines = new StringBuilder();
    String time = CallLine.now();
    for (Call call : batch) {
      lines.append(line(call, time)).append(System.lineSeparator());
    }
    try {
      output.result(lines.toString());
    } catch (Failure over) {
      // Nobody reads any more; calls are still answered.
    }
  }

  private String line(Call call, String time) {
    return output.isJson() ? Output.asJsonLine(CallJson.summary(call)) : CallLine.of(call, time);
  }

  /** Counts calls that were not answered to the end: their clients have left. */
  void brokenOff(long number) {
    calls.addAndGet(number);
    brokenOff.addAndGet(number);
  }

  /** Returns true if there was no call. */
  boolean isIdle() {
    return calls.get() == 0;
  }

  /** Prints what is left; returns a summary in one line. */
  String summary() {
    print();
    String more =
        (brokenOff.get() == 0 ? "" : ", " + brokenOff.get() + " broken off by the client")
            + (failed.get() == 0 ? "" : ", " + failed.get() + " failed")
            + (leftOut.get() == 0 ? "" : ", " + leftOut.get() + " of them not printed");
    return String.format(
        "%d %s, %d unexpected%s",
        calls.get(), calls.get() == 1 ? "call" : "calls", unexpected.get(), more);
  }

  /** Returns why calls failed, a line for each reason; empty if none did. */
  String failures() {
    StringBuilder lines = new StringBuilder();
    reasons.forEach(
        (reason, count) -> lines.append("\n  ").append(count).append(" x ").append(reason));
    return lines.toString();
  }
}
