// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.explain;

import dev.cachette.http.MediaType;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.finding.CheckText;
import dev.cachette.internal.masking.RequestMask;
import dev.cachette.internal.secret.Masking;
import dev.cachette.result.Check;
import java.util.List;
import java.util.Optional;

/** Explains violations of an API description. */
public final class DescriptionFailure {

  private static final int LONGEST = 600;

  private DescriptionFailure() {}

  /**
   * Explains a request that violates the API description.
   *
   * @param described the place in the API description, or the description itself
   * @param answering what answers it: {@code the stub "book a berth" (BerthTest.java:41)}
   */
  public static String refused(
      String described, Request request, List<Check> missed, Answering answering) {
    return String.format(
        "The request violates the API description.\n\n%s\n%s\n"
            + "described    %s\nanswered by  %s\n\n"
            + "Fix: send what the API description allows%s.\n",
        RequestText.of(request),
        CheckText.lines(RequestMask.of(request).checks(missed)),
        described,
        answering,
        answering.exception());
  }

  /** Explains that an unexpected call also violates the API description. */
  public static String refusedAnyway(String described, Request request, List<Check> missed) {
    return String.format(
        "\nThe request also violates the API description: %s\n\n%s",
        described, CheckText.lines(RequestMask.of(request).checks(missed)));
  }

  /**
   * Explains a response that violates the API description.
   *
   * @param described the place in the API description
   */
  public static String impossible(
      String described,
      Request request,
      Response response,
      List<Check> missed,
      Answering answering) {
    return String.format(
        "%s returns a response that violates the API description.\n\n"
            + "  %s\n\n  %d%s\n\n%s\ndescribed    %s\n\nFix: %s.\n",
        Character.toUpperCase(answering.text().charAt(0)) + answering.text().substring(1),
        request,
        response.status(),
        body(response),
        CheckText.lines(RequestMask.of(request, List.of(response)).checks(missed)),
        described,
        answering.isStub()
            ? "return what the API description allows" + answering.exception()
            : "correct the API description");
  }

  /** Explains that a part of the API description that a call needs cannot be used. */
  public static String unusable(Request request, String problem) {
    return String.format(
        "The API description cannot be used for this call.\n\n%s\n  %s\n\n"
            + "Fix: correct the API description; cachette check lists all problems in it.\n",
        RequestText.of(request), problem);
  }

  /** Explains that the API description has no example for a call. */
  public static String noExample(String described, Request request, String problem) {
    return String.format(
        "The API description has no example that could answer this call.\n\n%s\n  %s\n\n"
            + "described    %s\n\nFix: add an example, or declare a stub.\n",
        RequestText.of(request), problem, described);
  }

  private static String body(Response response) {
    Optional<MediaType> type = response.headers().contentType();
    boolean isText = BodyFormats.named(response.headers().first("content-type")).isText();
    if (response.body().isEmpty() || !isText) {
      return type.map(it -> " " + it).orElse("");
    }
    String text =
        Masking.body(
            response.headers().first("content-type"),
            Content.of(response.headers(), response.body()).text());
    String shown = text.length() > LONGEST ? text.substring(0, LONGEST) + " ..." : text;
    return type.map(it -> " " + it).orElse("") + "\n  " + shown.strip().replace("\n", "\n  ");
  }
}
