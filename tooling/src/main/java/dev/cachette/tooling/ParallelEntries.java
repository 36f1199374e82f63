// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.cassette.Redaction;
import dev.cachette.internal.cassette.FileRedaction;
import dev.cachette.internal.cassette.RecordedExchanges;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.NoSuchElementException;
import java.util.Queue;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.function.IntFunction;
import java.util.stream.IntStream;

/** Works on the entries of a cassette with a thread for each processor: it may be large. */
final class ParallelEntries implements AutoCloseable {

  /** More threads would need more memory than they save time. */
  private static final int MOST_THREADS = 4;

  /** So many entries are given to a thread at once. */
  private static final int AT_ONCE = 8;

  private final int threads = Math.min(MOST_THREADS, Runtime.getRuntime().availableProcessors());
  private final ExecutorService pool =
      Executors.newFixedThreadPool(
          threads,
          task -> {
            Thread thread = new Thread(task, "cachette-entries");
            thread.setDaemon(true);
            return thread;
          });

  /** Looks at an entry; each one in one of several threads. */
  @FunctionalInterface
  interface Look {
    void at(FileRedaction redaction, int entry);
  }

  /** Looks at all entries, and then again at those that need it. */
  FileRedaction lookAt(RecordedExchanges recordings, Redaction rules, Look look) {
    FileRedaction whole = FileRedaction.begin(recordings, rules);
    int each = Math.max(AT_ONCE, (recordings.size() + threads - 1) / threads);
    List<Future<FileRedaction>> parts = new ArrayList<>();
    for (int from = 0; from < recordings.size(); from += each) {
      int first = from;
      int end = Math.min(recordings.size(), from + each);
      FileRedaction part = whole.another();
      parts.add(
          pool.submit(
              () -> {
                IntStream.range(first, end).forEach(at -> look.at(part, at));
                return part;
              }));
    }
    parts.forEach(part -> whole.add(result(part)));
    whole.finish();
    return whole;
  }

  /** Makes something of the exchanges of a cassette, in one of several threads. */
  @FunctionalInterface
  interface Making<T> {
    T of(FileRedaction redaction, int number);
  }

  /** Returns the redacted entries, which are read ahead. */
  Iterable<String> entries(FileRedaction redaction) {
    return ahead(redaction, redaction.size(), FileRedaction::entry);
  }

  /** Returns what is made for the numbers from 0 to size, in order; some are made ahead. */
  <T> Iterable<T> ahead(FileRedaction redaction, int size, Making<T> making) {
    Queue<FileRedaction> free = new ConcurrentLinkedQueue<>();
    for (int thread = 0; thread < threads; thread++) {
      free.add(redaction.another());
    }
    return () ->
        new Ahead<>(size, from -> made(free, from, Math.min(size, from + AT_ONCE), making));
  }

  private static <T> List<T> made(Queue<FileRedaction> free, int from, int end, Making<T> making) {
    FileRedaction redaction = free.remove();
    try {
      return IntStream.range(from, end).mapToObj(at -> making.of(redaction, at)).toList();
    } finally {
      free.add(redaction);
    }
  }

  /** Returns the result of a task, or throws what it has thrown. */
  private static <T> T result(Future<T> task) {
    try {
      return task.get();
    } catch (ExecutionException failed) {
      if (failed.getCause() instanceof RuntimeException cause) {
        throw cause;
      }
      if (failed.getCause() instanceof Error cause) {
        // Such as too little memory.
        throw cause;
      }
      throw new IllegalStateException(failed.getCause());
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
      throw new ToolingException("interrupted.");
    }
  }

  @Override
  public void close() {
    pool.shutdownNow();
  }

  /** Returns results in order, and has others made meanwhile. */
  private final class Ahead<T> implements Iterator<T> {

    private final int size;
    private final IntFunction<List<T>> make;
    private final Queue<Future<List<T>>> next = new ArrayDeque<>();
    private Iterator<T> now = List.<T>of().iterator();
    private int begun;

    Ahead(int size, IntFunction<List<T>> make) {
      this.size = size;
      this.make = make;
    }

    @Override
    public boolean hasNext() {
      while (!now.hasNext()) {
        while (begun < size && next.size() <= threads) {
          int from = begun;
          Callable<List<T>> task = () -> make.apply(from);
          next.add(pool.submit(task));
          begun += AT_ONCE;
        }
        if (next.isEmpty()) {
          return false;
        }
        now = result(next.remove()).iterator();
      }
      return true;
    }

    @Override
    public T next() {
      if (!hasNext()) {
        throw new NoSuchElementException();
      }
      return now.next();
    }
  }
}
