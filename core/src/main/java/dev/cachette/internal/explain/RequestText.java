package dev.cachette.internal.explain;

import dev.cachette.http.Header;
import dev.cachette.http.MediaType;
import dev.cachette.http.Request;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;

/** A request as a person reads it: request line, headers that tell something, body. */
public final class RequestText {

  /** Said by the request line already, or by every client of every request. */
  private static final Set<String> TELLS_NOTHING =
      Set.of(
          "host",
          "connection",
          "content-length",
          "transfer-encoding",
          "keep-alive",
          "upgrade",
          "http2-settings",
          "accept-encoding");

  private static final int BODY_LINES = 12;
  private static final int BODY_CHARACTERS = 1_000;

  private RequestText() {}

  /** The request, each line indented by two spaces; secrets are masked, a long body is cut. */
  public static String of(Request request) {
    StringBuilder text = new StringBuilder("  ").append(request).append('\n');
    for (Header header : request.headers()) {
      if (!TELLS_NOTHING.contains(header.name().toLowerCase(Locale.ROOT))) {
        text.append("  ").append(header).append('\n');
      }
    }
    if (!request.body().isEmpty()) {
      text.append(body(request).indent(2));
    }
    return text.toString();
  }

  private static String body(Request request) {
    boolean readable = request.headers().contentType().map(MediaType::isText).orElse(true);
    if (!readable) {
      return "(" + request.body() + ")";
    }
    String whole = request.text();
    String start = whole.substring(0, Math.min(whole.length(), BODY_CHARACTERS));
    List<String> lines = start.lines().limit(BODY_LINES).toList();
    String shown = lines.stream().map(RequestText::visible).collect(Collectors.joining("\n"));
    boolean cut = start.length() < whole.length() || start.lines().count() > lines.size();
    return cut ? shown + "\n... (" + request.body() + " in all)" : shown;
  }

  private static String visible(String line) {
    return line.replaceAll("[\\p{Cntrl}&&[^\\t]]", "\u00b7");
  }
}
