// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.calls.Call;
import dev.cachette.http.Response;
import dev.cachette.result.StubReference;
import java.time.Duration;
import java.util.Optional;

/** Notes in the log what becomes of calls. The log is guarded by the lock of {@link Scopes}. */
final class CallProgress {

  private final Scopes scopes;
  private final ScopeSettings settings;

  CallProgress(Scopes scopes, ScopeSettings settings) {
    this.scopes = scopes;
    this.settings = settings;
  }

  /** Adds a call. */
  void log(LoggedCall call) {
    call.stages().reach(Stages.Stage.MATCHED, settings.nanos().getAsLong());
    synchronized (scopes) {
      call.arrival().scope().log().add(call);
    }
    TestId test = call.arrival().scope().test();
    settings.onlooker().arrived(call, test, scopes.describing(call.request()));
    if (call.state() != Call.State.ARRIVED) {
      scopes.changed();
    }
  }

  void answer(
      LoggedCall call, Reply reply, Optional<StubReference> stub, Optional<String> failure) {
    synchronized (scopes) {
      long size = call.size();
      call.answer(reply, stub, failure);
      call.arrival().scope().log().grow(call, call.size() - size);
    }
  }

  /** Adds a body that arrived while it was passed on. */
  void complete(LoggedCall call, Response whole) {
    synchronized (scopes) {
      long size = call.size();
      call.complete(whole);
      call.arrival().scope().log().grow(call, call.size() - size);
    }
  }

  void reach(LoggedCall call, Call.State state) {
    call.reach(state, settings.nanos().getAsLong());
    scopes.changed();
  }

  /** Notes that the beginning of the response is being written. */
  void writeFirst(LoggedCall call) {
    call.stages().reach(Stages.Stage.FIRST_BYTE, settings.nanos().getAsLong());
  }

  void deliver(LoggedCall call) {
    call.reach(Call.State.ANSWERED, settings.nanos().getAsLong());
    settings.onlooker().delivered(call, call.arrival().scope().test());
    settings.watcher().accept(call);
    scopes.changed();
  }

  /** Returns how long ago a request arrived, in real time. */
  Duration since(Arrival arrival) {
    return Duration.ofNanos(settings.nanos().getAsLong() - arrival.nanos());
  }
}
