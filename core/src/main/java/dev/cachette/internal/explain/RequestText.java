package dev.cachette.internal.explain;

import dev.cachette.http.Header;
import dev.cachette.http.MediaType;
import dev.cachette.http.Request;
import dev.cachette.internal.text.Quoting;
import dev.cachette.internal.text.Secrets;
import dev.cachette.match.Content;
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
          "accept-encoding",
          "user-agent");

  private static final int HEADERS = 8;
  private static final int BODY_LINES = 8;
  private static final int BODY_CHARACTERS = 400;
  private static final int BEFORE = 150;

  private RequestText() {}

  /** The request, each line indented by two spaces; secrets are masked, a long body is cut. */
  public static String of(Request request) {
    return "  " + request + "\n" + details(request, "");
  }

  /**
   * Headers and body, each line indented by two spaces.
   *
   * @param place the place in the body where a long one is not cut: {@code $.vessel}, {@code line
   *     3}; empty text for its start
   */
  static String details(Request request, String place) {
    List<Header> telling =
        request.headers().stream()
            .filter(header -> !TELLS_NOTHING.contains(header.name().toLowerCase(Locale.ROOT)))
            .toList();
    String headers =
        telling.stream()
            .limit(HEADERS)
            .map(header -> "  " + header + "\n")
            .collect(Collectors.joining());
    String more =
        telling.size() > HEADERS
            ? "  ... " + (telling.size() - HEADERS) + " more headers ...\n"
            : "";
    String body = request.body().isEmpty() ? "" : body(request, place).indent(2);
    return headers + more + body;
  }

  private static String body(Request request, String place) {
    boolean readable = request.headers().contentType().map(MediaType::isText).orElse(true);
    if (!readable) {
      return "(" + request.body() + ")";
    }
    String whole = masked(request);
    int from = start(whole, place);
    String rest = whole.substring(from, Math.min(whole.length(), from + BODY_CHARACTERS));
    List<String> lines = rest.lines().limit(BODY_LINES).toList();
    String shown = lines.stream().map(RequestText::visible).collect(Collectors.joining("\n"));
    boolean cut = from + rest.length() < whole.length() || rest.lines().count() > lines.size();
    return (from > 0 ? "... " : "")
        + (from > 0 || cut ? shown + "\n... (" + request.body() + " in all)" : shown);
  }

  private static String masked(Request request) {
    String text = Content.of(request.headers(), request.body()).text();
    boolean form =
        request
            .headers()
            .contentType()
            .filter(type -> type.subtype().equals("x-www-form-urlencoded"))
            .isPresent();
    return form ? Secrets.maskedFields(text) : Secrets.maskedMembers(text);
  }

  /** Where to begin, so that what differs is among what is shown. */
  private static int start(String whole, String place) {
    if (whole.length() <= BODY_CHARACTERS) {
      return 0;
    }
    if (place.matches("line [0-9]+")) {
      int line = Integer.parseInt(place.substring("line ".length()));
      return lineStart(whole, Math.max(0, line - 3));
    }
    String name = place.replaceAll(".*[./ ]|[\\[\\]'\"@0-9]", "");
    int at = name.isEmpty() ? -1 : whole.indexOf(name);
    return Math.max(0, at - BEFORE);
  }

  private static int lineStart(String text, int lines) {
    int at = 0;
    for (int line = 0; line < lines; line++) {
      at = text.indexOf('\n', at) + 1;
    }
    return at;
  }

  private static String visible(String line) {
    return Quoting.visible(line.replace('\t', ' '));
  }
}
