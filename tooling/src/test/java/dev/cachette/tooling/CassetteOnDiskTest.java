// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.cassette.CassetteException;
import dev.cachette.cassette.Drift;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Matching;
import dev.cachette.cassette.Redaction;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import org.junit.jupiter.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Files as a browser exports them: nothing that is shown, compared or converted has a secret. */
class CassetteOnDiskTest {

  private static final String SECRET = "low-water-17";

  @TempDir Path folder;

  private Path exported(String name, String secret, int size) throws Exception {
    String entry =
        """
        {"startedDateTime": "2031-04-02T04:10:00.000Z", "time": 12,
         "request": {"method": "POST", "url": "https://id.example/token?api_key=SECRET&day=1",
           "httpVersion": "HTTP/1.1", "queryString": [{"name": "api_key", "value": "SECRET"}],
           "cookies": [{"name": "session", "value": "SECRET"}],
           "headers": [{"name": "authorization", "value": "Bearer SECRET"},
             {"name": "cookie", "value": "session=SECRET"},
             {"name": "content-type", "value": "application/json"}],
           "postData": {"mimeType": "application/json", "text": "{\\"password\\": \\"SECRET\\"}"}},
         "response": {"status": 200, "statusText": "OK", "httpVersion": "HTTP/1.1",
           "headers": [{"name": "content-type", "value": "application/json"},
             {"name": "location", "value": "https://desk.example/?access_token=SECRET"}],
           "content": {"mimeType": "application/json", "text":
             "{\\"tokens\\": [{\\"access_token\\": \\"SECRET\\"}], \\"size\\": SIZE}"}}}
        """;
    return Files.writeString(
        folder.resolve(name),
        ("{\"log\": {\"version\": \"1.2\", \"creator\": {\"name\": \"x\", \"version\": \"1\"},"
                + " \"entries\": ["
                + entry
                + "]}}")
            .replace("SECRET", secret)
            .replace("SIZE", Integer.toString(size)));
  }

  @Test
  void theDriftOfExportedFilesHasNoSecrets() throws Exception {
    Path before = exported("before.har", SECRET, 1);
    Path after = exported("after.har", "high-water-18", 2);
    try (CassetteOnDisk old = new CassetteOnDisk(before, Assertions::fail);
        CassetteOnDisk now = new CassetteOnDisk(after, Assertions::fail)) {
      Drift drift = old.content().compareWith(now.content(), Matching.byDefault());
      assertEquals(
          """
          1 exchange of "%s" has changed, in values only:

            POST https://id.example/token?api_key={{api_key}}&day=1
              value   $.size  1  ->  2
          """
              .formatted(before),
          drift.toString());
    }
  }

  @Test
  void whatIsShownSearchedAndConvertedHasNoSecrets() throws Exception {
    List<String> texts = new ArrayList<>();
    try (CassetteOnDisk open = new CassetteOnDisk(exported("a.har", SECRET, 1), Assertions::fail)) {
      for (Exchange each : open.redacted()) {
        texts.add(ExchangeText.of(each));
        assertFalse(ExchangeFilter.all().text(SECRET).chooses(each));
        assertTrue(ExchangeFilter.all().text("TOKENS").chooses(each));
      }
      for (StubFormat format : StubFormat.values()) {
        try (CassetteConversion conversion = CassetteConversion.of(open, 1)) {
          texts.add(String.join("", conversion.toStubs(format, new TreeSet<>(), Assertions::fail)));
          texts.add(conversion.toJava());
        }
      }
    }
    assertEquals(5, texts.size());
    texts.forEach(text -> assertFalse(text.contains(SECRET), text));
  }

  @Test
  void redactingReplacesTheFileOnce() throws Exception {
    Path file = exported("a.har", SECRET, 1);
    Path copy = folder.resolve("b.har");
    Redaction rules = Redaction.byDefault();

    CassetteRedaction result =
        CassetteRedaction.of(file, Optional.of(copy), rules, Assertions::fail);
    assertEquals(1, result.changed());
    assertTrue(Files.readString(file).contains(SECRET), "the file itself is unchanged");
    assertFalse(Files.readString(copy).contains(SECRET));

    String before = Files.readString(copy);
    assertEquals(
        0, CassetteRedaction.of(copy, Optional.empty(), rules, Assertions::fail).changed());
    assertEquals(before, Files.readString(copy));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "method | post        | true",
        "method | GET         | false",
        "host   | id.example  | true",
        "host   | *.example   | true",
        "host   | tides.example | false",
        "text   | DAY=1       | true",
        "text   | day=2       | false",
      })
  void exchangesAreFiltered(String by, String value, boolean chosen) throws Exception {
    try (CassetteOnDisk open = new CassetteOnDisk(exported("a.har", SECRET, 1), Assertions::fail)) {
      ExchangeFilter all = ExchangeFilter.all().status(status -> status == 200);
      ExchangeFilter filter =
          switch (by) {
            case "method" -> all.method(value);
            case "host" -> all.host(value);
            default -> all.text(value);
          };
      assertEquals(chosen, filter.chooses(open.redacted().get(0)));
      assertFalse(filter.status(status -> status > 200).chooses(open.redacted().get(0)));
    }
  }

  @Test
  void whatIsNoCassetteIsRefused() throws Exception {
    Path text = Files.writeString(folder.resolve("a.har"), "{}");
    assertThrows(CassetteException.class, () -> new CassetteOnDisk(text, Assertions::fail));
    ToolingException none =
        assertThrows(
            ToolingException.class,
            () -> new CassetteOnDisk(folder.resolve("none.har"), Assertions::fail));
    assertEquals("there is no file " + folder.resolve("none.har") + ".", none.getMessage());
    ToolingException aFolder =
        assertThrows(ToolingException.class, () -> new CassetteOnDisk(folder, Assertions::fail));
    assertEquals(
        folder + " is a folder. Fix: name a cassette, a file that ends in .har.",
        aFolder.getMessage());
  }
}
