// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * The methods of the JDK, and of OkHttp, through which work goes from one thread to another, or to
 * a connection. The same in the JDK from 17 to 25. Without one of them less is known about who made
 * a call, and nothing else: so none is required.
 */
enum ContextPoint {
  SOCKET_WRITE(Hook.WROTE, "sun/nio/ch/NioSocketImpl", "write", "([BII)V"),
  CHANNEL_WRITE(Hook.WROTE, "sun/nio/ch/SocketChannelImpl", "write", "(Ljava/nio/ByteBuffer;)I"),
  CHANNEL_GATHERING_WRITE(
      Hook.WROTE, "sun/nio/ch/SocketChannelImpl", "write", "([Ljava/nio/ByteBuffer;II)J"),
  CHANNEL_BLOCKING_WRITE(
      Hook.WROTE, "sun/nio/ch/SocketChannelImpl", "blockingWriteFully", "([BII)V"),
  SOCKET_TIMED_READ(
      Hook.READS, "sun/nio/ch/NioSocketImpl", "timedRead", "(Ljava/io/FileDescriptor;[BIIJ)I"),
  SOCKET_TIMED_CONNECT(
      Hook.CONNECTS,
      "sun/nio/ch/NioSocketImpl",
      "timedFinishConnect",
      "(Ljava/io/FileDescriptor;J)Z"),
  CHANNEL_TIMED_CONNECT(
      Hook.CONNECTS, "sun/nio/ch/SocketChannelImpl", "finishTimedConnect", "(J)Z"),
  SOCKET_CONNECTED(
      Hook.CONNECTED, "sun/nio/ch/NioSocketImpl", "endConnect", "(Ljava/io/FileDescriptor;Z)V"),
  CHANNEL_CONNECTED(Hook.CONNECTED, "sun/nio/ch/SocketChannelImpl", "endConnect", "(ZZ)V"),
  CHANNEL_CONNECTED_LATER(
      Hook.CONNECTED, "sun/nio/ch/SocketChannelImpl", "endFinishConnect", "(ZZ)V"),
  SOCKET_READ(Hook.READ, "sun/nio/ch/NioSocketImpl", "read", "([BII)I"),
  CHANNEL_READ(Hook.READ, "sun/nio/ch/SocketChannelImpl", "read", "(Ljava/nio/ByteBuffer;)I"),
  CHANNEL_SCATTERING_READ(
      Hook.READ, "sun/nio/ch/SocketChannelImpl", "read", "([Ljava/nio/ByteBuffer;II)J"),
  CHANNEL_BLOCKING_READ(Hook.READ, "sun/nio/ch/SocketChannelImpl", "blockingRead", "([BIIJ)I"),
  SELECT(
      Hook.SELECTS,
      "sun/nio/ch/SelectorImpl",
      "lockAndDoSelect",
      "(Ljava/util/function/Consumer;J)I"),

  POOL_EXECUTE(Hook.CAPTURED, Names.POOL, "execute", "(Ljava/lang/Runnable;)V"),
  POOL_RUN(
      Hook.RUNS, Names.POOL, "runWorker", "(Ljava/util/concurrent/ThreadPoolExecutor$Worker;)V"),
  SCHEDULE(
      Hook.CAPTURED,
      Names.SCHEDULED_POOL,
      "delayedExecute",
      "(Ljava/util/concurrent/RunnableScheduledFuture;)V"),
  SCHEDULE_AGAIN(
      Hook.CAPTURED,
      Names.SCHEDULED_POOL,
      "reExecutePeriodic",
      "(Ljava/util/concurrent/RunnableScheduledFuture;)V"),
  TIMER_SCHEDULE(Hook.CAPTURED, "java/util/Timer", "sched", "(Ljava/util/TimerTask;JJ)V"),
  TIMER_RUN(Hook.RUNS, "java/util/TimerThread", "mainLoop", "()V"),

  QUEUE_PUT(Hook.CAPTURED, Names.LINKED_QUEUE, "put", Names.PUT),
  QUEUE_OFFER(Hook.CAPTURED, Names.LINKED_QUEUE, "offer", Names.OFFER),
  QUEUE_OFFER_WITHIN(Hook.CAPTURED, Names.LINKED_QUEUE, "offer", Names.OFFER_WITHIN),
  QUEUE_TAKE(Hook.TAKEN, Names.LINKED_QUEUE, "take", Names.TAKE),
  QUEUE_POLL(Hook.TAKEN, Names.LINKED_QUEUE, "poll", Names.TAKE),
  QUEUE_POLL_WITHIN(Hook.TAKEN, Names.LINKED_QUEUE, "poll", Names.POLL_WITHIN),
  BOUNDED_QUEUE_PUT(Hook.CAPTURED, Names.ARRAY_QUEUE, "put", Names.PUT),
  BOUNDED_QUEUE_OFFER(Hook.CAPTURED, Names.ARRAY_QUEUE, "offer", Names.OFFER),
  BOUNDED_QUEUE_OFFER_WITHIN(Hook.CAPTURED, Names.ARRAY_QUEUE, "offer", Names.OFFER_WITHIN),
  BOUNDED_QUEUE_TAKE(Hook.TAKEN, Names.ARRAY_QUEUE, "take", Names.TAKE),
  BOUNDED_QUEUE_POLL(Hook.TAKEN, Names.ARRAY_QUEUE, "poll", Names.TAKE),
  BOUNDED_QUEUE_POLL_WITHIN(Hook.TAKEN, Names.ARRAY_QUEUE, "poll", Names.POLL_WITHIN),

  /** A call of {@code java.net.http.HttpClient}: made by the caller, written by any thread. */
  JAVA_CLIENT_CALL(Hook.MADE, JavaClient.CALL, "<init>", Names.ANY),
  JAVA_CLIENT_HEAD(Hook.WRITES, JavaClient.REQUEST, "headers", "()Ljava/util/List;"),
  JAVA_CLIENT_STREAM(Hook.STREAMS, JavaClient.STREAM, "registerStream", "(IZ)Z"),
  JAVA_CLIENT_TIMER(
      Hook.TIMER,
      "jdk/internal/net/http/HttpClientImpl",
      "registerTimer",
      "(Ljdk/internal/net/http/TimeoutEvent;)V"),

  /** A call of OkHttp: made by the caller, run by any thread of its dispatcher. */
  OKHTTP_CALL(Hook.MADE, OkHttp.CALL, "<init>", Names.ANY),
  OKHTTP_RUN(Hook.RUNS_CALL, OkHttp.RUNNING_CALL, "run", "()V");

  /** The kind of hook. */
  enum Hook {
    /** At its beginning, with {@code this}. */
    WROTE,
    /** At its beginning, with {@code this} and its second argument, a boolean. */
    CONNECTED,
    /** At its beginning. */
    SELECTS,
    /** At its beginning, with its first argument. */
    CAPTURED,
    /** At its beginning, with a call and its connection. */
    WRITES,
    /** At its beginning, with a call, its connection, and its first argument, a number. */
    STREAMS,
    /** At its beginning, with its first argument, a timer. */
    TIMER,
    /** At its beginning, with its timeout, and at its end, with its result. */
    READS,
    /** The same, and if it fails, with its exception. */
    CONNECTS,
    /** At its end, with its result and {@code this}. */
    READ,
    /** At its beginning, with the call that {@code this} runs. */
    RUNS_CALL,
    /** At its end, with {@code this}. */
    MADE,
    /** At its end, with its result. */
    TAKEN,
    /** Around each call of {@code run()} in it, with what is run. */
    RUNS
  }

  /** Constants, which an enum cannot have before its values. */
  private static final class Names {
    static final String POOL = "java/util/concurrent/ThreadPoolExecutor";
    static final String SCHEDULED_POOL = "java/util/concurrent/ScheduledThreadPoolExecutor";
    static final String LINKED_QUEUE = "java/util/concurrent/LinkedBlockingQueue";
    static final String ARRAY_QUEUE = "java/util/concurrent/ArrayBlockingQueue";
    static final String PUT = "(Ljava/lang/Object;)V";
    static final String OFFER = "(Ljava/lang/Object;)Z";
    static final String OFFER_WITHIN = "(Ljava/lang/Object;JLjava/util/concurrent/TimeUnit;)Z";
    static final String TAKE = "()Ljava/lang/Object;";
    static final String POLL_WITHIN = "(JLjava/util/concurrent/TimeUnit;)Ljava/lang/Object;";
    static final String ANY = "*";
  }

  /** With slashes. */
  private static final Set<String> CLASSES = new HashSet<>();

  static {
    for (ContextPoint point : values()) {
      if (!point.isOfLibrary()) {
        CLASSES.add(point.className);
      }
    }
  }

  private final Hook hook;
  private final String className;
  private final String methodName;
  private final String descriptor;

  ContextPoint(Hook hook, String className, String methodName, String descriptor) {
    this.hook = hook;
    this.className = className;
    this.methodName = methodName;
    this.descriptor = descriptor;
  }

  /** Returns the name of its class, with slashes. */
  String className() {
    return className;
  }

  /** Returns true if one is in a class, with slashes, of the JDK. */
  static boolean isIn(String aClass) {
    return CLASSES.contains(aClass);
  }

  private boolean isOfLibrary() {
    return className.startsWith(OkHttp.PACKAGE);
  }

  /** Returns true if one is in a class, with slashes, of a library, or of a copy of one. */
  static boolean isInLibrary(String aClass) {
    return aClass.endsWith(OkHttp.CALL) || aClass.endsWith(OkHttp.RUNNING_CALL);
  }

  /** Returns those in a class, with slashes. */
  static List<ContextPoint> in(String aClass) {
    List<ContextPoint> points = new ArrayList<>();
    for (ContextPoint point : values()) {
      if (point.isOfLibrary() ? aClass.endsWith(point.className) : point.className.equals(aClass)) {
        points.add(point);
      }
    }
    return points;
  }

  Hook hook() {
    return hook;
  }

  boolean isAt(String aMethod, String aDescriptor) {
    return methodName.equals(aMethod)
        && (descriptor.equals(Names.ANY) || descriptor.equals(aDescriptor));
  }
}
