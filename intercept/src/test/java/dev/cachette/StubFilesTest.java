// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.computed;
import static dev.cachette.answer.Answers.json;
import static dev.cachette.answer.Answers.status;
import static dev.cachette.answer.Answers.text;
import static dev.cachette.match.Values.atMost;
import static dev.cachette.match.Values.is;
import static dev.cachette.match.Values.satisfies;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.internal.json.JsonSchemas;
import dev.cachette.match.Bodies;
import dev.cachette.stubfile.StubFileException;
import dev.cachette.stubfile.StubFileProblem;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.snakeyaml.engine.v2.api.Load;
import org.snakeyaml.engine.v2.api.LoadSettings;

class StubFilesTest {

  private static final Path FOLDER = Path.of("src", "test", "stubs");

  private final Cachette net =
      Cachette.open(
          Settings.defaults()
              .unusedStubs(UnusedStubs.IGNORE)
              .unexpectedCalls(UnexpectedCalls.WARN));

  @TempDir Path folder;

  @AfterEach
  void close() {
    net.close();
  }

  @Test
  void aFileAnswersAsItsStubsWouldInJava() throws Exception {
    StubFiles files = net.load("everything");

    assertEquals(
        "{\"station\":\"marrow\"}",
        Calling.get("https://tides.example/v1/stations/marrow/tides").body());
    assertEquals("costs ${price}", Calling.get("https://tides.example/v1/plain").body());
    assertEquals("{\"a\":1.50}", Calling.get("https://tides.example/v1/json").body());
    assertTrue(Calling.get("https://tides.example/v1/file").body().contains("Ines Aldaba"));
    assertEquals(503, Calling.get("https://tides.example/v1/turn").statusCode());
    assertEquals(500, Calling.get("https://tides.example/v1/turn").statusCode());
    String lists = "https://berths.example/v1/lists?tag=old&tag=tall&berth=1&berth=2";
    assertEquals(503, Calling.get(lists).statusCode());
    assertEquals(503, Calling.get(lists).statusCode());
    assertEquals(204, Calling.get(lists).statusCode());
    assertEquals("once", send("GET https://tides.example/v1/once", "accept", "text/plain", ""));
    assertEquals(
        "{\"berth\":\"B-12\",\"high\":[\"04:10\",\"16:35\"],\"fee\":12.50}",
        send(
            "POST https://berths.example/v1/json",
            "x-desk",
            "north",
            "{\"vessel\":{\"draught\":4.2,\"name\":\"Kittiwake\"},\"owner\":null,"
                + "\"tags\":[\"tall\"],\"day\":\"2031-04-02\",\"id\":7}"));
    assertTrue(Calling.get("https://berths.example/v1/bookings/7").body().contains("Kittiwake"));
    files.stub("in turn").calls().assertCount(2);
    assertEquals(1, files.collections().size());
  }

  @Test
  void jsonTextIsSentUnchanged() throws Exception {
    net.declare(
        """
        stubs:
          - request: GET https://tides.example/v1/values
            answer:
              json:
                whole: [0, -1, 2147483648, 123456789012345678901234567890]
                fractions: [1.50, 1e3, -0.5]
                words: [true, false, null, True, no, "", ~, 04:10, 007, "7"]
                texts: ["\u00e9", 'a"b', "\t", ü]
                empty: { object: {}, array: [] }
                3: [[1], [{ deep: [2] }]]
        """);

    assertEquals(
        "{\"whole\":[0,-1,2147483648,123456789012345678901234567890],"
            + "\"fractions\":[1.50,1E+3,-0.5],"
            + "\"words\":[true,false,null,\"True\",\"no\",\"\",\"~\",\"04:10\",\"007\",\"7\"],"
            + "\"texts\":[\"é\",\"a\\\"b\",\"\\t\",\"ü\"],"
            + "\"empty\":{\"object\":{},\"array\":[]},"
            + "\"3\":[[1],[{\"deep\":[2]}]]}",
        Calling.get("https://tides.example/v1/values").body());
  }

  private static String send(String line, String header, String value, String body)
      throws Exception {
    String[] parts = line.split(" ");
    HttpRequest request =
        HttpRequest.newBuilder(URI.create(parts[1]))
            .method(parts[0], HttpRequest.BodyPublishers.ofString(body))
            .header(header, value)
            .build();
    return Calling.send(HttpClient.newHttpClient(), request).body();
  }

  @Test
  void loadedStubsCanBeWrittenAndReadAgain() {
    net.load("everything");
    String first = net.toStubFile();
    net.reset();

    net.declare(first);

    assertEquals(first, net.toStubFile());
    assertTrue(first.contains("probability: 0.25"), first);
    assertFalse(first.contains("# not written"), first);
    assertTrue(
        first.endsWith(
            "identifiedBy: number\n"
                + "    etags: true\n"
                + "    seed:\n"
                + "      - number: 7\n"
                + "        vessel: Kittiwake\n"));
  }

  @Test
  void aStubMadeInJavaCanBeWrittenUnlessItIsAFunction() throws Exception {
    Stub written =
        net.stub("POST https://berths.example/v1/bookings")
            .named("book a berth")
            .json("$.vessel.draught", atMost(4.5))
            .header("x-desk", is("north").or(is("south")))
            .body(Bodies.sameJson("{\"vessel\":{\"draught\":4.2}}"))
            .answer(status(503), json("{\"berth\":\"B-12\"}").status(201).header("location", "/7"))
            .times(2);

    assertEquals(
        """
        stubs:
          - name: book a berth
            request: POST https://berths.example/v1/bookings
            json:
              $.vessel.draught:
                atMost: 4.5
            headers:
              x-desk:
                anyOf:
                  - north
                  - south
            body:
              sameJson:
                vessel:
                  draught: 4.2
            answers:
              - status: 503
              - status: 201
                json:
                  berth: B-12
                headers:
                  location: /7
            times: 2
        """,
        written.toStubFile());
  }

  @Test
  void aFunctionCannotBeWrittenAndIsNamed() {
    Stub function =
        net.stub("GET https://tides.example/v1").answer(computed(received -> text("high")));
    assertTrue(
        assertThrows(IllegalStateException.class, function::toStubFile)
            .getMessage()
            .contains("is computed"));
    Stub predicate =
        net.stub("GET https://tides.example/v2")
            .query("day", satisfies("a working day", day -> true))
            .answer(text("high"));
    assertTrue(
        assertThrows(IllegalStateException.class, predicate::toStubFile)
            .getMessage()
            .contains("a working day"));
  }

  @Test
  void allProblemsAreReportedTogetherWithTheirPlaces() throws Exception {
    StubFileException wrong =
        assertThrows(StubFileException.class, () -> net.load("wrong", "absent"));
    StubFileException all = assertThrows(StubFileException.class, () -> net.load("wrong"));

    assertEquals("absent", wrong.problems().get(0).file());
    assertEquals(
        all.problems().stream().filter(it -> !it.path().endsWith("after")).toList(),
        wrong.problems().subList(1, wrong.problems().size()),
        "a stub that is nowhere may be in the file that is missing");

    Path golden = FOLDER.resolve("wrong.txt");
    String said =
        all.problems().stream()
            .map(StubFileProblem::toString)
            .map(line -> line.replace(Path.of("").toAbsolutePath().toString(), "..."))
            .collect(Collectors.joining("\n", "", "\n"))
            .replace('\\', '/');
    if (Boolean.getBoolean("guide.refresh")) {
      Files.writeString(golden, said);
    }
    assertEquals(Files.readString(golden), said);
    assertTrue(net.toStubFile().contains("stubs: []"), "none of them is in force");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "stubs: [ | 1:9 | not valid YAML",
        "'' | 1:1 | the file is empty",
        "- 1 | 1:1 | expected a mapping",
        "{\"stubs\": [{\"request\": \"GET /a\", \"answer\": 20}]} | 1:44 | 200 to 599",
        "'stubs: &a [*a]' | 1:12 | contains itself",
        "'stubs: [{request: GET /a, request: GET /b, answer: 200}]' | 1:27 | duplicate key",
        "'stubs: [{request: GET /a, answer: {fault: truncted, json: 1}}]' | 1:35 | \"truncated\"",
        "'stubs: [{request: GET /a, answer: {fault: noResponse, json: 1}}]' | 1:35 | is not allowed"
            + " with",
        "'stubs: [{request: GET /a, answer: {streamed: true, json: 1}}]' | 1:35 | file",
        "'stubs: [{request: GET /a, answer: {status: 204, json: 1}}]' | 1:35 | no content",
        "'stubs: [{request: GET /a, answer: {recorded: {cassette: x}}}]' | 1:35 | request",
        "'stubs: [{request: GET http://a.example/, answer: outdatedTls}]' | 1:9 | plain HTTP",
        "'collections: [{url: \"https://x.example/a\", seed: [1]}]' | 1:50 | array of objects",
      })
  void badTextIsRefusedWithLineAndColumn(String text, String place, String said) {
    StubFileException wrong = assertThrows(StubFileException.class, () -> net.declare(text));

    StubFileProblem first = wrong.problems().get(0);
    assertEquals(place, first.line() + ":" + first.column(), wrong.getMessage());
    assertTrue(first.message().contains(said), wrong.getMessage());
  }

  @Test
  void jsonThatIsTooDeepIsAProblemOfItsPlace() {
    String deep = "[".repeat(1_100) + "]".repeat(1_100);

    StubFileException wrong =
        assertThrows(
            StubFileException.class,
            () -> net.declare("stubs: [{request: GET /a, answer: {json: " + deep + "}}]"));

    assertEquals(1038, wrong.problems().get(0).column());
    assertTrue(wrong.getMessage().contains("more than 1000 levels"), wrong.getMessage());
  }

  @Test
  void aFixIsWrittenAsStubsAreInTheirFile() throws Exception {
    Path desk = folder.resolve("desk.stubs.yaml");
    Files.writeString(
        desk,
        """
        stubs:
          - request: POST https://berths.example/v1/bookings
            json: { $.draught: 4.2 }
            answer: 201
        """);
    StubFiles files = net.load(desk.toString());

    String other = Calling.get("https://berths.example/v1/bookings").body();
    String text =
        send("POST https://berths.example/v1/bookings", "x-desk", "north", "{\"draught\":\"4.2\"}");

    String fix = other.substring(other.indexOf("correct the call, or stub it in " + desk + ":\n"));
    assertTrue(text.contains("or accept a string: json: { \"$.draught\": \"4.2\" }\n"), text);
    String added = fix.substring(fix.indexOf("  - "), fix.indexOf("If several"));
    Files.writeString(desk, Files.readString(desk) + added);
    files.reload();
    assertEquals("{}", Calling.get("https://berths.example/v1/bookings").body());
  }

  @Test
  void aFolderTheClassPathAndAPathAreLookedIn() throws Exception {
    net.load("pilots");
    assertEquals("south", Calling.get("https://pilots.example/south").body());
    assertTrue(Calling.get("https://pilots.example/north").body().contains("Ines Aldaba"));

    assertTrue(net.load("moorings/buoys").files().isEmpty());
    assertEquals("[\"B1\"]", Calling.get("https://buoys.example/v1").body().strip());

    assertEquals(
        List.of(FOLDER.resolve("tides.stubs.json")),
        net.load(FOLDER.resolve("tides.stubs.json").toString()).files());
    assertTrue(
        assertThrows(StubFileException.class, () -> net.load("pilts"))
            .getMessage()
            .contains("pilts.stubs.yaml"));
  }

  @Test
  void aFileIsReadAgainOnDemandAndTheOldStubsStayWhereItIsWrong() throws Exception {
    Path file = folder.resolve("a.stubs.yaml");
    Path other = folder.resolve("b.stubs.yaml");
    Files.writeString(other, "include: a.stubs.yaml");
    Files.writeString(
        file,
        "{include: b.stubs.yaml, stubs: [{request: GET https://a.example/, answer: {text: one}}]}");
    StubFiles files = net.load(file.toString());
    assertEquals(Set.of(file, other), Set.copyOf(files.files()));
    assertEquals("one", Calling.get("https://a.example/").body());

    Files.writeString(file, "stubs: [{request: GET https://a.example/, answer: {text: two}}]");
    files.reload();
    assertEquals("two", Calling.get("https://a.example/").body());

    Files.writeString(file, "stubs: [{request: GET https://a.example/}]");
    assertThrows(StubFileException.class, files::reload);
    assertEquals("two", Calling.get("https://a.example/").body());

    files.remove();
    assertEquals(501, Calling.get("https://a.example/").statusCode());
  }

  @Test
  void theSchemaAcceptsWhatIsReadAndKnowsTheSameWords() throws Exception {
    JsonNode schema;
    try (InputStream in = Cachette.class.getResourceAsStream("/cachette-stubs.schema.json")) {
      schema = new ObjectMapper().readTree(in);
    }
    JsonSchemas check = new JsonSchemas(schema);

    assertEquals(List.of(), check.differences(tree(FOLDER.resolve("everything.stubs.yaml"))));
    assertEquals(List.of(), check.differences(tree(FOLDER.resolve("pilots/north.stubs.yaml"))));
    assertFalse(check.differences(tree(FOLDER.resolve("wrong.stubs.yaml"))).isEmpty());

    JsonNode defs = schema.at("/$defs");
    assertEquals(keys(schema), allowed("nothing: 1"));
    assertEquals(keys(defs.get("stub")), allowed("stubs: {nothing: 1}"));
    assertEquals(keys(defs.get("condition")), allowed("stubs: {where: {nothing: 1}}"));
    assertEquals(keys(defs.get("response")), allowed("stubs: {answer: {nothing: 1}}"));
    assertEquals(keys(defs.get("valueCondition")), allowed("stubs: {bearer: {nothing: 1}}"));
    assertEquals(keys(defs.get("bodyCondition")), allowed("stubs: {body: {nothing: 1}}"));
  }

  @Test
  void sharedPartsAreUsedByReferenceAndByAnchor() throws Exception {
    net.declare(
        """
        cors: true
        shared:
          busy: { status: 503, headers: { retry-after: "1" }, text: busy }
          desk: &desk { x-desk: north }
          later: { $ref: "#/shared/busy", headers: { retry-after: "60" } }
        stubs:
          - request: GET https://a.example/1
            answer: { $ref: "#/shared/busy" }
          - request: GET https://a.example/2
            answers: [ { $ref: "#/shared/later", status: 429 }, { text: fine } ]
          - { request: GET https://a.example/3, headers: *desk, answer: { text: north } }
          - request: GET https://a.example/4
            answer: { json: { $ref: "#/definitions/not-ours" } }
        """);
    assertEquals("busy", Calling.get("https://a.example/1").body());
    HttpResponse<String> later = Calling.get("https://a.example/2");
    assertEquals(429, later.statusCode());
    assertEquals("60", later.headers().firstValue("retry-after").orElseThrow());
    assertEquals("fine", Calling.get("https://a.example/2").body());
    assertEquals(501, Calling.get("https://a.example/3").statusCode());
    assertEquals(
        "{\"$ref\":\"#/definitions/not-ours\"}", Calling.get("https://a.example/4").body());
    HttpRequest fromPage =
        HttpRequest.newBuilder(URI.create("https://a.example/1"))
            .header("origin", "http://desk.example")
            .build();
    assertEquals(
        "http://desk.example",
        Calling.send(HttpClient.newHttpClient(), fromPage)
            .headers()
            .firstValue("access-control-allow-origin")
            .orElseThrow());
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '~',
      value = {
        "shared: {busy: {status: 503}}; stubs: {answer: {$ref: '#/shared/buzy'}}"
            + " | there is no \"buzy\" in shared. Did you mean \"busy\"? Shared: busy.",
        "shared: {a: {$ref: '#/shared/b'}, b: {$ref: '#/shared/a'}}; stubs: {answer: {$ref:"
            + " '#/shared/a'}} | \"a\" contains itself.",
        "shared: {a: 5}; stubs: {answer: {$ref: '#/shared/a', status: 200}} | the shared part is 5,"
            + " so nothing can be added beside it.",
        "shared: {a: 5}; stubs: {request: 'GET https://a.example', answer: {$ref:"
            + " 'b.yaml#/shared/a'}} | $ref must be \"#/shared/NAME\", the name of a part in shared"
            + " in this file.",
        "stubs: {request: 'GET https://a.example', answer: {$ref: '#/shared/a'}}"
            + " | stubs.answer: $ref must be \"#/shared/NAME\"",
        "shared: 5; stubs: {request: 'GET https://a.example', answer: {status: 200}} | expected"
            + " names with values, found 5",
        "cors: maybe; stubs: {request: 'GET https://a.example', answer: {status: 200}} | maybe",
      })
  void aSharedPartThatCannotBeUsedIsAProblem(String text, String problem) {
    StubFileException wrong =
        assertThrows(StubFileException.class, () -> net.declare(text.replace("; ", "\n")));
    assertTrue(wrong.getMessage().contains(problem), wrong.getMessage());
  }

  @Test
  void sharedPartsThatMultiplyAreRefused() {
    StringBuilder text = new StringBuilder("shared:\n  p0: [1, 1, 1, 1, 1, 1, 1, 1, 1, 1]\n");
    for (int level = 1; level < 9; level++) {
      String before = "{ $ref: '#/shared/p" + (level - 1) + "' }";
      text.append("  p").append(level).append(": [");
      text.append(String.join(", ", Collections.nCopies(10, before))).append("]\n");
    }
    text.append("stubs: { request: GET /, answer: { json: { $ref: '#/shared/p8' } } }\n");
    StubFileException wrong =
        assertThrows(StubFileException.class, () -> net.declare(text.toString()));
    assertTrue(wrong.getMessage().contains("it expands to more than"), wrong.getMessage());
  }

  private static JsonNode tree(Path file) throws Exception {
    Object plain = new Load(LoadSettings.builder().build()).loadFromString(Files.readString(file));
    return new ObjectMapper().valueToTree(plain);
  }

  private static Set<String> keys(JsonNode object) {
    Set<String> keys = new TreeSet<>();
    object.get("properties").fieldNames().forEachRemaining(keys::add);
    return keys;
  }

  private Set<String> allowed(String text) {
    String message =
        assertThrows(StubFileException.class, () -> net.declare(text)).problems().stream()
            .map(StubFileProblem::message)
            .filter(it -> it.contains(" \"nothing\""))
            .findFirst()
            .orElseThrow();
    String list = message.substring(message.indexOf("Allowed: ") + 9, message.length() - 1);
    return new TreeSet<>(Arrays.asList(list.split(", ")));
  }

  @Test
  void tenThousandStubsAreReadWhole() {
    String all =
        IntStream.range(0, 10_000)
            .mapToObj(
                number ->
                    "  - { name: n"
                        + number
                        + ", request: GET https://tides.example/v1/"
                        + number
                        + ", answer: { json: { n: "
                        + number
                        + " } } }\n")
            .collect(Collectors.joining("", "stubs:\n", ""));

    List<Stub> stubs = net.declare(all).stubs();

    assertEquals(10_000, stubs.size());
    for (int number = 0; number < 10_000; number++) {
      Stub stub = stubs.get(number);
      assertEquals("n" + number, stub.reference().name());
      assertEquals("GET https://tides.example/v1/" + number, stub.pattern().line());
      ResponseAnswer answer = (ResponseAnswer) stub.answers().get(0);
      assertEquals("{\"n\":" + number + "}", answer.response().text());
    }
  }
}
