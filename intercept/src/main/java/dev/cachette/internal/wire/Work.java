// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import dev.cachette.internal.engine.Incoming;
import dev.cachette.internal.engine.PendingCall;
import dev.cachette.internal.engine.Reply;
import io.netty.channel.ChannelHandlerContext;
import java.time.Duration;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import org.jspecify.annotations.Nullable;

/**
 * A call whose answer takes time: it is decided and computed by a worker. If deciding takes too
 * long, it is given up: the call is answered, and the worker's result is dropped.
 */
final class Work {

  /** Work that can stop by itself gets the chance to say at which condition it was. */
  private static final long GRACE_MILLIS = 250;

  private final ChannelHandlerContext context;
  private final Site site;
  private final Incoming incoming;
  private final Done done;
  private final Runnable decision = this::decideNow;

  /** Set by the first of both: the worker that has decided, or the watch that gives up. */
  private final AtomicBoolean decided = new AtomicBoolean();

  private volatile @Nullable PendingCall call;
  private volatile boolean started;
  private volatile boolean hungUp;

  /** The next look at it; on the thread of the connection. */
  private @Nullable Future<?> watching;

  /** True if it was late already when it was looked at the last time. */
  private boolean overdue;

  /** Runs on the thread of the connection, at the end. */
  @FunctionalInterface
  interface Done {

    void with(PendingCall call, Reply reply);
  }

  Work(ChannelHandlerContext context, Site site, Incoming incoming, Done done) {
    this.context = context;
    this.site = site;
    this.incoming = incoming;
    this.done = done;
  }

  /** Begins with the decision; on the thread of the connection. */
  void decide() {
    site.transmissions().add(this);
    site.workers().decide(decision);
    watchIn(incoming.patience().toMillis() + 1);
  }

  /** Begins with the reply of a call about which it is decided. */
  void compute(PendingCall known) {
    site.transmissions().add(this);
    decided.set(true);
    call = known;
    known.begin();
    site.workers().execute(incoming.request().toString(), () -> reply(known));
  }

  /** Returns true if it is not decided yet who answers. */
  boolean isUndecided() {
    return !decided.get();
  }

  /** Drops what a worker does for it, and resets the connection. */
  void abandon() {
    new Peer(context).reset();
  }

  /** Notes that the client disconnected. */
  void hungUp() {
    hungUp = true;
    PendingCall known = call;
    if (known != null) {
      known.hungUp();
    }
  }

  private void decideNow() {
    started = true;
    PendingCall result = decideOrFail();
    if (!decided.compareAndSet(false, true)) {
      return;
    }
    call = result;
    if (hungUp) {
      result.hungUp();
    }
    if (result.takesTime()) {
      result.begin();
      site.workers().execute(incoming.request().toString(), () -> reply(result));
    } else {
      reply(result);
    }
    site.transmissions().decided();
  }

  private PendingCall decideOrFail() {
    try {
      return incoming.decide();
    } catch (RuntimeException | Error failed) {
      return incoming.fail(failed);
    }
  }

  /** Whatever fails here, the connection must not hang. */
  private void reply(PendingCall known) {
    PendingCall answering = known;
    Reply reply;
    try {
      reply = known.reply();
    } catch (RuntimeException | Error failed) {
      answering = incoming.fail(failed);
      reply = answering.reply();
    }
    end(answering, reply);
  }

  private void end(PendingCall known, Reply reply) {
    context
        .executor()
        .execute(
            () -> {
              site.transmissions().remove(this);
              if (watching != null) {
                // It would keep the request until then.
                watching.cancel(false);
              }
              done.with(known, reply);
            });
  }

  private void watchIn(long millis) {
    watching = context.executor().schedule(this::watch, millis, TimeUnit.MILLISECONDS);
  }

  private void watch() {
    if (!isUndecided()) {
      return;
    }
    Duration left = incoming.patience();
    if (!started || !left.isNegative()) {
      overdue = false;
      watchIn(Math.max(GRACE_MILLIS, left.toMillis()));
    } else if (!overdue) {
      // Once more: if the JVM stood still, the worker has had no time either.
      overdue = true;
      watchIn(GRACE_MILLIS);
    } else {
      giveUp();
    }
  }

  /** Answers without the worker, unless it has just decided. */
  void giveUp() {
    if (!decided.compareAndSet(false, true)) {
      return;
    }
    call = incoming.giveUp();
    reply(call);
    site.transmissions().decided();
    site.workers().abandon(decision);
  }
}
