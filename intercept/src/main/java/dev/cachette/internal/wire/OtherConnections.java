// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import io.netty.channel.Channel;
import io.netty.channel.ChannelPipeline;
import io.netty.handler.codec.http2.Http2FrameCodec;
import io.netty.util.concurrent.Future;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * The other connections to a destination, when the next call is to meet a fault before its request:
 * a client that has several must not send it on one of them. Idle ones are ended before the answer
 * that comes first, if their clients notice that. Those that are busy end with their own answer.
 */
final class OtherConnections {

  private static final int PATIENCE_MILLIS = 200;

  private OtherConnections() {}

  /**
   * Ends the idle ones, and waits until their clients have closed them; on the thread of the
   * connection.
   *
   * @param then what to do after that
   */
  static void end(Channel own, List<Channel> all, Runnable then) {
    List<Channel> idle =
        all.stream().filter(other -> other != own && isIdle(other.pipeline())).toList();
    if (idle.isEmpty()) {
      then.run();
      return;
    }
    AtomicInteger open = new AtomicInteger(idle.size());
    Future<?> late = own.eventLoop().schedule(then, PATIENCE_MILLIS, TimeUnit.MILLISECONDS);
    for (Channel each : idle) {
      LingeringClose.begin(each);
      each.closeFuture()
          .addListener(
              closed -> {
                if (open.decrementAndGet() == 0 && late.cancel(false)) {
                  own.eventLoop().execute(then);
                }
              });
    }
  }

  private static boolean isIdle(ChannelPipeline pipeline) {
    Http2FrameCodec http2 = pipeline.get(Http2FrameCodec.class);
    return http2 == null
        ? HttpPipeline.isIdle(pipeline)
        : http2.connection().numActiveStreams() == 0;
  }
}
