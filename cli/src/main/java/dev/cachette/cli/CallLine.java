package dev.cachette.cli;

import dev.cachette.calls.Call;
import dev.cachette.internal.secret.Masking;
import dev.cachette.result.StubReference;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;

/** One call in one line. */
final class CallLine {

  private static final int UNEXPECTED = 501;
  private static final double NANOS_OF_MILLI = 1e6;
  private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm:ss");

  private CallLine() {}

  /** Returns the time of day. */
  static String now() {
    return LocalTime.now().format(TIME);
  }

  static String of(Call call, String time) {
    String failed = call.failure().map(why -> "failed: " + firstLine(why) + "  ").orElse("");
    String stub =
        call.stub().map(StubReference::toString).orElse(isUnexpected(call) ? "no stub" : "");
    return time + "  " + call.request() + "  ->  " + call.outcome() + "  " + failed + stub;
  }

  static String firstLine(String text) {
    return text.lines().findFirst().orElse("");
  }

  static Map<String, Object> json(Call call) {
    Map<String, Object> json = new LinkedHashMap<>();
    json.put("method", call.method());
    json.put("url", Masking.url(call.uri().toString()));
    json.put("state", call.state().name().toLowerCase(Locale.ROOT));
    if (hasResponse(call)) {
      json.put("answer", call.response().status());
    } else {
      call.fault().ifPresent(fault -> json.put("answer", fault.toString()));
    }
    json.put("arrivedAt", call.arrivedAt().toString());
    call.duration().ifPresent(it -> json.put("durationMillis", it.toNanos() / NANOS_OF_MILLI));
    json.put("protocol", call.protocol());
    json.put("connection", call.connection());
    call.stub().ifPresent(stub -> json.put("stub", stub.name()));
    call.failure().ifPresent(why -> json.put("failure", why));
    json.put("unexpected", isUnexpected(call));
    return json;
  }

  static boolean hasResponse(Call call) {
    return call.fault().isEmpty()
        && call.state() != Call.State.ARRIVED
        && call.state() != Call.State.COMPUTING;
  }

  static boolean isUnexpected(Call call) {
    return call.stub().isEmpty() && hasResponse(call) && call.response().status() == UNEXPECTED;
  }
}
