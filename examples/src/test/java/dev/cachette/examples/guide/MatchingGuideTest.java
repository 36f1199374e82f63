// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.guide;

import static dev.cachette.cassette.Matching.Part.METHOD;
import static dev.cachette.cassette.Matching.Part.PATH;

import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.examples.harbour.SignIn;
import dev.cachette.examples.harbour.VesselRegistry;
import dev.cachette.junit.InterceptHttp;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.ResourceLock;

/** The snippets of docs/guide/matching.md; GuideTest compares them with the page. */
@ResourceLock(InterceptHttp.LOCK)
class MatchingGuideTest {

  @TempDir Path folder;

  @Test
  void ignoring() {
    Cassettes.twice(
        folder,
        net -> {
          // snippet ignoring
          net.cassette(
              "harbour/sign-in",
              CassetteSettings.defaults()
                  .recordingInCi()
                  .matching(how -> how.ignoringQuery("state", "code_challenge")));

          new SignIn().token();
          // end
        });
  }

  @Test
  void parts() {
    Cassettes.twice(
        folder,
        net -> {
          // snippet parts
          net.cassette(
              "harbour/registry",
              CassetteSettings.defaults()
                  .recordingInCi()
                  .matching(
                      how ->
                          how.on(METHOD, PATH)
                              .andHeaders("accept-language")
                              .by(
                                  (recorded, actual) ->
                                      recorded.text().contains("Kittiwake")
                                          == actual.text().contains("Kittiwake"))
                              .onceEach()));
          // end
          new VesselRegistry().find("Kittiwake");
        });
  }

  @Test
  void varying() {
    Cassettes.once(
        folder,
        net -> {
          net.cassette("harbour/sign-in");
          new SignIn().token();
        });
    Cassettes.once(
        folder,
        net -> {
          // snippet varying
          net.cassette(
              "harbour/sign-in",
              CassetteSettings.defaults().mode(RecordingMode.REWRITE).learnVarying());

          new SignIn().token();
          // end
        });
    Cassettes.twice(
        folder,
        net -> {
          net.cassette("harbour/sign-in");
          new SignIn().token();
        });
  }
}
