// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import dev.cachette.cassette.CassetteContent;
import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Redaction;
import dev.cachette.http.Uri;
import dev.cachette.internal.cases.capture.CapturedCalls;
import dev.cachette.internal.cases.capture.Sessions;
import dev.cachette.internal.disk.CassetteFile;
import dev.cachette.internal.misuse.Refusals;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;

/** Makes cases of a HAR file that a browser has exported. They have no outgoing calls. */
public final class CasesOfHar {

  /** Types of files that a page loads besides calling the application. */
  private static final List<String> ASSETS =
      List.of("image/", "font/", "audio/", "video/", "text/css", "javascript", "application/wasm");

  private CasesOfHar() {}

  /**
   * Converts the calls to one origin; those of assets, such as images and scripts, are left out.
   *
   * @param har the file
   * @param application the origin: {@code http://localhost:8080}
   * @param folder the folder of cases
   * @return the names of the cases
   * @throws CassetteException if it cannot be read, or has no call to this origin
   * @throws IllegalArgumentException if the origin is malformed
   */
  public static List<String> convert(
      Path har, String application, Path folder, Redaction redaction) {
    Refusals.given("convert(har, application, folder, redaction)", har);
    String origin = Uri.parseOrigin(application).origin();
    CassetteContent content = CassetteFile.read(har);
    List<Exchange> wanted =
        content.exchanges().stream()
            .filter(it -> it.request().uri().origin().equals(origin))
            .filter(it -> it.response().isPresent())
            .filter(it -> !isAsset(it))
            .toList();
    if (wanted.isEmpty()) {
      String others =
          content.exchanges().stream()
              .map(it -> it.request().uri().origin())
              .distinct()
              .collect(Collectors.joining(", "));
      throw new CassetteException(
          String.format(
              "%s has no call to %s. It has calls to: %s.%nFix: give the origin of the application"
                  + " that the browser has called.",
              har, origin, others.isEmpty() ? "nothing" : others));
    }
    CapturedCalls captured =
        new CapturedCalls(
            folder, redaction, new Sessions(Optional.empty(), Optional.empty()), written -> {});
    try (captured) {
      captured.importAll(wanted);
    }
    return captured.cases().stream().flatMap(it -> it.name().stream()).toList();
  }

  private static boolean isAsset(Exchange exchange) {
    String type =
        exchange
            .response()
            .flatMap(it -> it.headers().first("content-type"))
            .orElse("")
            .toLowerCase(Locale.ROOT);
    return ASSETS.stream().anyMatch(type::contains);
  }
}
