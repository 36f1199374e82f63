package dev.cachette.internal.explain;

import dev.cachette.http.MediaType;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.text.Secrets;
import dev.cachette.match.Check;
import dev.cachette.match.Content;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/** Why a call is not as the description of its service says, as text. */
public final class DescriptionFailure {

  private static final int LONGEST = 600;

  private DescriptionFailure() {}

  /**
   * The code sends what the service would refuse.
   *
   * @param described where the call is described, or what describes the service
   * @param answering what would answer it: {@code the stub "book a berth" (BerthTest.java:41)}
   * @param mayBeMeant whether the stub can say that this is meant
   */
  public static String refused(
      String described, Request request, List<Check> missed, String answering, boolean mayBeMeant) {
    return String.format(
        "The service would refuse this call, by its description.\n\n%s\n%s\n"
            + "described    %s\nanswered by  %s\n\n"
            + "Mend: send what the description allows%s.\n",
        RequestText.of(request),
        lines(missed),
        described,
        answering,
        mayBeMeant ? "; if this is meant, say undescribed() of the stub" : "");
  }

  /** What is said of a request that nothing answers and that the service would refuse, too. */
  public static String refusedAnyway(String described, List<Check> missed) {
    return String.format(
        "\nThe service would refuse it, too, by its description: %s\n\n%s",
        described, lines(missed));
  }

  /**
   * A stub answers what the service never would.
   *
   * @param described where the call is described
   */
  public static String impossible(
      String described, Request request, Response response, List<Check> missed, String answering) {
    return String.format(
        "%s answers what the service never would, by its description.\n\n"
            + "  %s\n\n  %d%s\n\n%s\ndescribed    %s\n\nMend: %s.\n",
        Character.toUpperCase(answering.charAt(0)) + answering.substring(1),
        request,
        response.status(),
        body(response),
        lines(missed),
        described,
        answering.startsWith("the stub")
            ? "answer what the description allows; if this is meant, say undescribed() of the stub"
            : "correct the description");
  }

  /** A part of the description that is needed for a call cannot be used. */
  public static String unusable(Request request, String problem) {
    return String.format(
        "The description of the service cannot be used for this call.\n\n%s\n  %s\n\n"
            + "Mend: correct the description; cachette check finds all that is wrong in it.\n",
        RequestText.of(request), problem);
  }

  /** The description gives no example for a call. */
  public static String noExample(String described, Request request, String problem) {
    return String.format(
        "The description has no example that could answer this call.\n\n%s\n  %s\n\n"
            + "described    %s\n\nMend: give an example there, or declare a stub.\n",
        RequestText.of(request), problem, described);
  }

  private static String lines(List<Check> missed) {
    int width = missed.stream().mapToInt(check -> check.condition().length()).max().orElse(0);
    return missed.stream().map(check -> check.lines(width)).collect(Collectors.joining());
  }

  private static String body(Response response) {
    Optional<MediaType> type = response.headers().contentType();
    if (response.body().isEmpty() || type.filter(MediaType::isText).isEmpty()) {
      return type.map(it -> " " + it).orElse("");
    }
    String text = Secrets.maskedMembers(Content.of(response.headers(), response.body()).text());
    String shown = text.length() > LONGEST ? text.substring(0, LONGEST) + " ..." : text;
    return " " + type.get() + "\n  " + shown.strip().replace("\n", "\n  ");
  }
}
