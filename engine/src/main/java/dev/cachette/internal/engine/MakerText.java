// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import dev.cachette.calls.MadeBy.Evidence;
import dev.cachette.http.Request;
import dev.cachette.internal.explain.RequestText;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** Says in explanations who made a call, with the lines of the user's code that did. */
final class MakerText {

  private static final int LINES = 6;

  /** In the names of classes that have no source. */
  private static final String LAMBDA = "$$Lambda";

  /** The JDK, test frameworks, HTTP clients, and what is between them and the user's code. */
  private static final Pattern NOT_OF_USER =
      Pattern.compile(
          "(?:java|javax|jdk|sun|com\\.sun|kotlin|kotlinx|scala|groovy"
              + "|dev\\.cachette\\.(?:cli|internal|junit|testng)|picocli"
              + "|org\\.(?:junit|testng|apache|springframework|eclipse\\.jetty|glassfish"
              + "|asynchttpclient|gradle|mockito|slf4j|aspectj)"
              + "|okhttp3|okio|retrofit2|io\\.(?:netty|vertx|helidon|grpc|micrometer|opentelemetry)"
              + "|reactor|feign|kong|com\\.(?:google|intellij|fasterxml)|software\\.amazon)\\..*");

  private MakerText() {}

  /** Returns a paragraph for an explanation; empty if nothing is known. */
  static String of(Maker maker) {
    if (maker.thread().isEmpty()) {
      return "";
    }
    String stack = stack(maker);
    boolean isHint = maker.evidence() == Evidence.STARTED_THREAD && maker.test().isOver();
    if (stack.isEmpty() && !isHint && maker.evidence() != Evidence.HANDED_OVER) {
      return "";
    }
    return madeBy(maker)
        + (isHint
            ? "That test is over, and the call may be for it: end what a test starts.\n"
            : "");
  }

  /** Returns the explanation of a call that was made for a test without an open scope. */
  static String ofOtherTest(Request request, Maker maker) {
    return maker.test().isOver() ? late(request, maker) : parallel(request, maker);
  }

  private static String parallel(Request request, Maker maker) {
    return String.format(
        "Unexpected call: %s (of another test: %s)\n\n"
            + "%s\n"
            + "That test runs at the same time as a test that intercepts, and does not intercept"
            + " itself. So no\n"
            + "stub answers the call, and it does not count for the other test.\n\n"
            + "The request\n\n"
            + "%s\n"
            + "Fix: annotate its class with @InterceptHttp and declare stubs, or, to run it while"
            + " no other test\n"
            + "intercepts, with @ResourceLock(InterceptHttp.LOCK).\n",
        request, maker.test().name(), madeBy(maker), RequestText.of(request));
  }

  private static String late(Request request, Maker maker) {
    return String.format(
        "Unexpected call: %s (its test is over: %s)\n\n"
            + "%s\nThat test is over. So no stub answers the call, and it does not count for the"
            + " test that runs now.\n\n"
            + "The request\n\n%s\n"
            + "Fix: let the test end what it has started: shut down executors, cancel timers, await"
            + " calls. Or,\nif an application lives longer than its tests, such as a cached Spring"
            + " context, use\nSettings.acceptLateCalls(true).\n",
        request, maker.test().name(), madeBy(maker), RequestText.of(request));
  }

  private static String madeBy(Maker maker) {
    String stack = stack(maker);
    return "Made by " + maker.shown() + (stack.isEmpty() ? ".\n" : ":\n" + stack);
  }

  private static String stack(Maker maker) {
    return maker.stack().get().stream()
        .filter(frame -> !NOT_OF_USER.matcher(frame.getClassName()).matches())
        .filter(frame -> !frame.getClassName().contains(LAMBDA))
        .limit(LINES)
        .map(MakerText::line)
        .collect(Collectors.joining());
  }

  /** Returns a frame as an IDE links it, without loader and module. */
  private static String line(StackTraceElement frame) {
    return String.format(
        "    at %s.%s(%s:%d)\n",
        frame.getClassName(), frame.getMethodName(), frame.getFileName(), frame.getLineNumber());
  }
}
