// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import dev.cachette.answer.AnswerInternals;
import dev.cachette.answer.Fault;
import dev.cachette.http.Body;
import dev.cachette.internal.engine.Reply;
import dev.cachette.internal.engine.Schedule;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.Deque;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The body of a reply in the parts in which it is written: its pieces, split to keep a rate, and
 * ended early by a fault. Files are read as they are written.
 */
final class Parts implements AutoCloseable {

  private static final int READ = 64 * 1024;
  private static final long NANOS = 1_000_000_000;

  /** The maximum number of writes per second at a limited rate. */
  private static final int TICKS_PER_SECOND = 20;

  private final Deque<Part> waiting = new ArrayDeque<>();
  private final long bytesPerSecond;
  private final @Nullable InputStream file;
  private final long length;
  private long left;
  private boolean finished;
  private boolean inOrder = true;

  /**
   * Bytes to write.
   *
   * @param pause the pause before them
   */
  record Part(Duration pause, byte[] bytes) {}

  private Parts(long bytesPerSecond, @Nullable InputStream file, long length, long limit) {
    this.bytesPerSecond = bytesPerSecond;
    this.file = file;
    this.length = length;
    this.left = limit;
  }

  static Parts of(Reply reply) throws IOException {
    Schedule schedule = reply.schedule();
    if (reply.file().isPresent()) {
      Path path = Path.of(reply.file().get().name());
      return new Parts(
          schedule.bytesPerSecond(), Files.newInputStream(path), Files.size(path), Long.MAX_VALUE);
    }
    long size = reply.pieces().stream().mapToLong(Body::size).sum();
    long limit = reply.fault().map(fault -> limit(fault, size)).orElse(Long.MAX_VALUE);
    Parts parts = new Parts(schedule.bytesPerSecond(), null, size, limit);
    List<Body> pieces = reply.pieces();
    for (int at = 0; at < pieces.size(); at++) {
      Duration pause = at == 0 ? Duration.ZERO : schedule.between().get(at - 1);
      parts.add(pause, pieces.get(at).bytes());
    }
    parts.finished = reply.live().isEmpty();
    return parts;
  }

  private static long limit(Fault fault, long size) {
    return fault.kind() == Fault.Kind.RESET_AFTER
        ? Long.MAX_VALUE
        : Math.min(size, AnswerInternals.bytes(fault));
  }

  /** Returns the number of bytes without a fault. */
  long length() {
    return length;
  }

  /** Adds a piece, to send as soon as possible. */
  void add(byte[] piece) {
    add(Duration.ZERO, piece);
  }

  void finish(boolean nothingWentWrong) {
    finished = true;
    inOrder = nothingWentWrong;
  }

  /** Returns the next part, or null if there is none at the moment. */
  @Nullable Part next() throws IOException {
    if (waiting.isEmpty() && file != null) {
      byte[] read = file.readNBytes(READ);
      if (read.length == 0) {
        finished = true;
      } else {
        add(read);
      }
    }
    return waiting.poll();
  }

  /** Returns true if nothing follows. */
  boolean isFinished() {
    return finished && waiting.isEmpty();
  }

  /** Returns true if the body ended normally. */
  boolean isInOrder() {
    return inOrder;
  }

  /** Closes the file. */
  @Override
  public void close() {
    if (file != null) {
      try {
        file.close();
      } catch (IOException onlyRead) {
        // It was opened for reading only.
      }
    }
  }

  private void add(Duration pause, byte[] piece) {
    byte[] allowed = piece.length <= left ? piece : Arrays.copyOf(piece, (int) left);
    left -= allowed.length;
    if (allowed.length == 0) {
      return;
    }
    if (bytesPerSecond == 0) {
      waiting.add(new Part(pause, allowed));
      return;
    }
    int slice = (int) Math.max(1, Math.min(READ, bytesPerSecond / TICKS_PER_SECOND));
    for (int from = 0; from < allowed.length; from += slice) {
      int to = Math.min(allowed.length, from + slice);
      Duration paced = Duration.ofNanos((to - from) * NANOS / bytesPerSecond);
      Duration wait = from == 0 ? pause.plus(paced) : paced;
      waiting.add(new Part(wait, Arrays.copyOfRange(allowed, from, to)));
    }
  }
}
