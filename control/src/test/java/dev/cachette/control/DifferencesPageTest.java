// SPDX-License-Identifier: Apache-2.0
package dev.cachette.control;

import static dev.cachette.answer.Answers.text;
import static dev.cachette.match.Bodies.formField;
import static dev.cachette.match.Bodies.part;
import static dev.cachette.match.Bodies.sameText;
import static dev.cachette.match.Bodies.sameXml;
import static dev.cachette.match.Bodies.xpath;
import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.match.BodyCondition;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** The body that was sent has a mark wherever the closest stub requires something else. */
class DifferencesPageTest extends OpenPage {

  private static final String FORM = "application/x-www-form-urlencoded";

  /**
   * A body.
   *
   * @param shown how the page shows it, with the marks
   */
  private record Sent(String type, BodyCondition expected, String body, String shown) {}

  private static List<Sent> xml() {
    BodyCondition stay =
        sameXml("<stay id=\"1\" day=\"2\"><vessel>Gull</vessel><berth/><berth>B</berth></stay>");
    return List.of(
        new Sent(
            "application/xml",
            stay,
            "<stay id=\"2\" x=\"a>b\"><vessel>Tern</vessel><berth/></stay>",
            "<stay id=\"2\" x=\"a>b\">day is missingid differsx differs\n"
                + "  <vessel>Tern</vessel>differs\n"
                + "  <berth/>berth[2] is missing\n"
                + "</stay>"),
        new Sent(
            "application/xml",
            sameXml("<stay><vessel>Gull</vessel></stay>"),
            "<stay>\n <vessel>Gull</vessel>\n <vessel>Gull</vessel>\n</stay>",
            "<stay>\n <vessel>Gull</vessel>\n <vessel>Gull</vessel>differs\n</stay>"),
        new Sent(
            "application/xml",
            sameXml("<note>to <b>Gull</b>, now</note>"),
            "<note>to <b>Gull</b>, later</note>",
            "<note>text differsto\n  <b>Gull</b>, later</note>"),
        new Sent(
            "application/soap+xml",
            xpath("/stay/vessel", "Gull"),
            "<stay><vessel><![CDATA[<Tern>]]></vessel></stay>",
            "<stay>\n  <vessel><![CDATA[<Tern>]]></vessel>differs\n</stay>"),
        new Sent(
            "application/xml",
            xpath("/stay/berth", "B-7"),
            "<!-- <berth> --><stay><vessel/></stay>",
            "<!-- <berth> -->\n<stay>\n  <vessel/>berth is missing\n</stay>"));
  }

  private static List<Sent> others() {
    return List.of(
        new Sent(
            FORM, formField("vessel", "Gull"), "vessel=Tern&day=1", "vessel Terndiffers\nday 1"),
        new Sent(FORM, formField("day", "2"), "vessel=Tern", "vessel Tern\nday missing"),
        new Sent(
            "multipart/form-data; boundary=quay",
            part("cargo").content("herring"),
            "--quay\r\nContent-Disposition: form-data; name=\"cargo\"\r\n\r\nsalt\r\n--quay--\r\n",
            "Part 1 of 1differs\nContent-Disposition form-data; name=\"cargo\"\nsalt"),
        new Sent(
            "multipart/form-data; boundary=quay",
            part("vessel"),
            "--quay\r\nContent-Disposition: form-data; name=\"cargo\"\r\n\r\nsalt\r\n--quay--\r\n",
            "Part 1 of 1\n"
                + "Content-Disposition form-data; name=\"cargo\"\n"
                + "salt\n"
                + "part vessel: missing"),
        new Sent("text/plain", sameText("Gull to B-7"), "Gull to B-9", "Gull to B-differs here9"),
        new Sent("text/plain", sameText("Gull to B-7"), "Gull to", "Gull todiffers here"));
  }

  @Test
  void whatDiffersIsMarked() throws Exception {
    List<Sent> all = Stream.concat(xml().stream(), others().stream()).toList();
    for (int number = 1; number <= all.size(); number++) {
      Sent sent = all.get(number - 1);
      net.stub("POST /v1/stays/" + number).body(sent.expected).answer(text("booked"));
      call("POST", "/v1/stays/" + number, sent.body, "content-type", sent.type);

      browser.open(control + "/#/calls?call=" + number);

      browser.awaitText("#call h2", "/v1/stays/" + number);
      browser.await("marks", () -> !browser.all("#call .body .differs").isEmpty());
      assertEquals(sent.shown, browser.text("#call .body > :last-child").replaceAll(" +\n", "\n"));
    }
  }
}
