// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.cachette.cassette.Redaction;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Checks of files, with settings. */
class FileCheckTest {

  private static final String STUBS =
      "stubs: [{ request: GET https://tides.example/v1/tides, answer: { json: { high: 1 } } }]";

  private static final String DESCRIPTION =
      """
      openapi: 3.1.0
      info: { title: Tides, version: "1" }
      paths:
        /v1/tides:
          get:
            responses:
              "200":
                description: The tides.
                content:
                  application/json:
                    schema: { properties: { high: { type: string } } }
      """;

  private static final String CASSETTE =
      """
      {"log": {"version": "1.2", "creator": {"name": "x", "version": "1"}, "entries": [
        {"startedDateTime": "2001-04-02T12:00:00Z", "time": 5,
         "request": {"method": "GET", "url": "https://tides.example/v1/tides?berth=4711",
           "headers": []},
         "response": {"status": 204, "headers": [], "content": {"size": 0}}}]}}
      """;

  @TempDir Path folder;

  private List<Finding> check(FileCheck check, String file, String content) throws Exception {
    return check.of(Files.writeString(folder.resolve(file), content), Assertions::fail);
  }

  private static List<String> texts(List<Finding> findings) {
    return findings.stream().map(Finding::finding).toList();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "tides.har          | {}                 | CASSETTE",
        "tides.stubs.yaml   | stubs: []          | STUBS",
        "tides.json         | {\"stubs\": []}    | STUBS",
        "tides.yml          | swagger: '2.0'     | DESCRIPTION",
        "tides.openapi.json | {\"openapi\": \"3.1.0\"} | DESCRIPTION",
        "tides.txt          | openapi: 3.1.0     | OTHER",
        "har                | {}                 | OTHER",
      })
  void theKindOfAFileIsKnown(String name, String content, FileKind kind) throws Exception {
    assertEquals(kind, FileKind.of(Files.writeString(folder.resolve(name), content)));
  }

  @Test
  void whatIsRightHasNoFindings() throws Exception {
    FileCheck check = FileCheck.defaults();
    assertEquals(List.of(), check(check, "a.stubs.yaml", STUBS));
    assertEquals(List.of(), check(check, "a.openapi.yaml", DESCRIPTION));
    assertEquals(List.of(), check(check, "a.har", CASSETTE));
  }

  @Test
  void aStubIsComparedWithTheDescriptionOfItsOriginOnly() throws Exception {
    Path described = Files.writeString(folder.resolve("a.openapi.yaml"), DESCRIPTION);
    Descriptions here = Descriptions.none().with("https://TIDES.example:443", described);
    Descriptions elsewhere = Descriptions.none().with("https://berths.example", described);

    assertEquals(
        List.of(), check(FileCheck.defaults().describedBy(elsewhere), "a.stubs.yaml", STUBS));
    List<Finding> found = check(FileCheck.defaults().describedBy(here), "a.stubs.yaml", STUBS);
    assertEquals(1, found.size(), found.toString());
    assertEquals(
        "\"GET https://tides.example/v1/tides\": body at $.high: expected type \"string\" ("
            + described
            + ":11), actual 1.",
        found.get(0).finding());
  }

  @Test
  void originsAreThoseOfItsServers() throws Exception {
    String servers = "servers: [{ url: https://tides.example/v1 }, { url: /v1 }]\n";
    Path with = Files.writeString(folder.resolve("a.yaml"), DESCRIPTION + servers);
    Path without = Files.writeString(folder.resolve("b.yaml"), DESCRIPTION);
    assertEquals(List.of("https://tides.example"), Descriptions.originsOf(with));
    assertEquals(List.of(), Descriptions.originsOf(without));
    assertThrows(IllegalArgumentException.class, () -> Descriptions.none().with("tides", without));
  }

  @Test
  void ageAndSecretsAreThoseOfTheSettings() throws Exception {
    FileCheck check =
        FileCheck.defaults()
            .staleAfter(FileCheck.time("90d"))
            .redaction(Redaction.byDefault().secret("BERTH", "4711"));
    List<String> found = texts(check(check, "a.har", CASSETTE));

    assertEquals(2, found.size(), found.toString());
    assertEquals("recorded at 2001-04-02T12:00:00Z", found.get(0).substring(0, 32));
    assertEquals(
        "GET https://tides.example/v1/tides?berth=****: contains a secret that recording would"
            + " redact. Fix: cachette redact",
        found.get(1));
    assertEquals(
        List.of(),
        check(FileCheck.defaults().staleAfter(Duration.ofDays(36_500)), "a.har", CASSETTE));
  }

  @Test
  void findingsQuoteNoSecret() throws Exception {
    Path described = Files.writeString(folder.resolve("a.openapi.yaml"), DESCRIPTION);
    FileCheck check =
        FileCheck.defaults()
            .describedBy(Descriptions.none().with("https://tides.example", described))
            .redaction(Redaction.byDefault().secret("BERTH", "47114711"));
    String response =
        "\"status\": 200, \"headers\": [{\"name\": \"content-type\", \"value\":"
            + " \"application/json\"}], \"content\": {\"mimeType\": \"application/json\", \"text\":"
            + " \"{\\\"high\\\": 47114711}\"}";

    List<String> found =
        texts(
            check(
                check,
                "a.har",
                CASSETTE.replace(
                    "\"status\": 204, \"headers\": [], \"content\": {\"size\": 0}", response)));

    assertEquals(3, found.size(), found.toString());
    assertFalse(found.toString().contains("47114711"), found.toString());
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "none.yaml | there is no file FOLDER/none.yaml.",
        "sub       | FOLDER/sub is a folder. Fix: name its files: FOLDER/sub/*",
        "a.txt     | FOLDER/a.txt is neither a cassette (.har), nor a stub file or API description"
            + " (.yaml, .yml, .json).",
      })
  void whatCannotBeCheckedSaysWhy(String name, String message) throws Exception {
    Files.createDirectory(folder.resolve("sub"));
    Files.writeString(folder.resolve("a.txt"), "");
    ToolingException failure =
        assertThrows(
            ToolingException.class,
            () -> FileCheck.defaults().of(folder.resolve(name), Assertions::fail));
    assertEquals(message.replace("FOLDER", folder.toString()), failure.getMessage());
  }
}
