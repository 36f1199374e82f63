// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.w3c.dom.Element;

/** The commands for contracts, with those of the examples and a provider that runs on Node.js. */
@Tag("once")
class ContractCommandsTest {

  private static final Path CONTRACTS =
      Path.of("../examples/src/test/contracts").toAbsolutePath().normalize();
  private static final String FILE = "harbour-desk--berths.contract.yaml";
  private static final Path NODE = Path.of("/usr/bin/node");

  @TempDir Path folder;

  private final List<Process> running = new ArrayList<>();

  @AfterEach
  void stop() {
    running.forEach(Process::destroyForcibly);
  }

  /** Starts the provider; returns its URL. */
  private String berths(String... flaws) throws Exception {
    assumeTrue(Files.isExecutable(NODE), "Node.js is not installed");
    List<String> command =
        new ArrayList<>(List.of(NODE.toString(), "src/test/resources/dev/cachette/cli/berths.js"));
    command.addAll(List.of(flaws));
    Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
    running.add(process);
    BufferedReader out =
        new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
    return "http://127.0.0.1:" + out.readLine();
  }

  private Run verify(String url, String location, String... more) throws Exception {
    List<String> arguments =
        new ArrayList<>(
            List.of(
                "verify",
                location,
                "--provider",
                "berths",
                "--against",
                url,
                "--given-url",
                url + "/test/state",
                "--header",
                "authorization: Bearer valid"));
    arguments.addAll(List.of(more));
    return Run.in(folder, arguments.toArray(String[]::new));
  }

  @Test
  void aProviderInAnotherLanguageIsVerified() throws Exception {
    String url = berths();
    Run run = verify(url, CONTRACTS.toString());

    assertEquals(0, run.code(), run.out() + run.err());
    assertEquals(
        """
        CONSUMER CLAUSE TIME RESULT
        harbour-desk book a berth met
        harbour-desk book a berth at last met
        harbour-desk no berth is left met
        """
            .strip(),
        run.out().strip().replaceAll("\\d+ ms", "").replaceAll(" +", " "));
    assertEquals("3 clauses verified against " + url + ": 3 met", run.err().strip());
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "text | $.status | an integer, such as 409 | \"409\" | a number as a string",
        "plain | NO   media type | application/problem+json | application/json | Fix: correct the"
            + " media type",
        "renamed | $.berth | a string, such as \"B-12\" | missing | renamed: there is \"place\"",
      })
  void aFlawIsExplained(String flaw, String place, String expected, String actual, String cause)
      throws Exception {
    Run run = verify(berths(flaw), CONTRACTS.toString());

    assertEquals(1, run.code(), run.out() + run.err());
    for (String part :
        List.of(
            place,
            "expected  " + expected,
            "actual    " + actual,
            cause,
            "needed by BerthContractTest.")) {
      assertTrue(run.out().contains(part), run.out());
    }
  }

  @Test
  void theResultsAreForOtherPrograms() throws Exception {
    Run run =
        verify(berths("text"), CONTRACTS.toString(), "--json", "--junit-xml", "reports/berths.xml");

    JsonNode json = new ObjectMapper().readTree(run.out());
    assertFalse(json.get("met").booleanValue());
    assertEquals("not met", json.at("/clauses/2/outcome").asText());
    assertEquals("$.status", json.at("/clauses/2/differences/0/at").asText());
    assertEquals("a number as a string", json.at("/clauses/2/differences/0/cause").asText());
    Element suite =
        (Element)
            DocumentBuilderFactory.newInstance()
                .newDocumentBuilder()
                .parse(folder.resolve("reports/berths.xml").toFile())
                .getElementsByTagName("testsuite")
                .item(0);
    assertEquals("berths for harbour-desk", suite.getAttribute("name"));
    assertEquals("3", suite.getAttribute("tests"));
    assertEquals("1", suite.getAttribute("failures"));
    Element failure = (Element) suite.getElementsByTagName("failure").item(0);
    assertEquals(
        "$.status: expected an integer, such as 409, actual \"409\"",
        failure.getAttribute("message"));
  }

  @Test
  void whatIsMissingIsSaid() throws Exception {
    String url = berths();
    Run states =
        Run.in(folder, "verify", CONTRACTS.toString(), "--provider", "berths", "--against", url);
    assertEquals(3, states.code());
    assertTrue(
        states.out().contains("There is no handler for the state \"a berth is free\"."),
        states.out());

    Run secret =
        Run.in(
            folder,
            "verify",
            CONTRACTS.toString(),
            "--provider",
            "berths",
            "--against",
            url,
            "--given-url",
            url + "/test/state");
    assertTrue(
        secret.out().contains("with the tool: --header \"authorization: ...\""), secret.out());

    Run gone = verify("http://127.0.0.1:1", CONTRACTS.toString());
    assertEquals(3, gone.code(), gone.out());
  }

  /** Publishes the contract as 2.1, which berths 1.4 meets and 1.5 does not. */
  private String store() throws Exception {
    String store = folder.resolve("store").toString();
    Run published =
        Run.in(
            folder,
            "publish",
            CONTRACTS.toString(),
            "--to",
            store,
            "--consumer-version",
            "2.1",
            "--branch",
            "main",
            "--environment",
            "production");
    assertEquals(0, published.code(), published.err());
    assertEquals("harbour-desk@2.1 with berths", published.out().strip());
    assertEquals(0, verify(berths(), store, "--provider-version", "1.4").code());
    assertEquals(1, verify(berths("text"), store, "--provider-version", "1.5").code());
    return store;
  }

  @Test
  void fromAContractToARelease() throws Exception {
    String store = store();

    Run table = Run.in(folder, "compat", store);
    assertEquals(0, table.code());
    assertTrue(
        table
            .out()
            .contains("berths@1.5 does not meet harbour-desk@2.1: \"no berth is left\": $.status:"),
        table.out());
    Run yes = Run.in(folder, "compat", store, "--release", "berths@1.4", "--to", "production");
    assertEquals(0, yes.code(), yes.out() + yes.err());
    assertTrue(yes.out().startsWith("yes: berths@1.4 can go to production."), yes.out());
    Run no = Run.in(folder, "compat", store, "--release", "berths@1.5", "--to", "production");
    assertEquals(1, no.code());
    assertTrue(no.out().startsWith("no: berths@1.5 cannot go to production."), no.out());
    Run label = Run.in(folder, "label", "berths@1.4", "--in", store, "--environment", "production");
    assertEquals(0, label.code(), label.err());
    Run html = Run.in(folder, "compat", store, "--html", "compat.html");
    assertEquals(0, html.code(), html.err());
    assertTrue(Files.readString(folder.resolve("compat.html")).contains("in production"));
  }

  @Test
  void versionsInAStoreAreCompared() throws Exception {
    String store = folder.resolve("store").toString();
    Path changed = Files.createDirectory(folder.resolve("changed"));
    Files.writeString(
        changed.resolve(FILE),
        Files.readString(CONTRACTS.resolve(FILE)).replace("type: integer", "type: string"));
    Run.in(folder, "publish", CONTRACTS.toString(), "--to", store, "--consumer-version", "2.1");
    Run.in(folder, "publish", changed.toString(), "--to", store, "--consumer-version", "2.2");

    Run compared =
        Run.in(
            folder,
            "compare",
            "harbour-desk@2.1",
            "harbour-desk@2.2",
            "--in",
            store,
            "--fail-on",
            "shape");

    assertEquals(1, compared.code());
    assertEquals(
        "berths: no berth is left\n  asks more  $.status: an integer -> a string",
        compared.out().strip());
  }

  @Test
  void theControlPortShowsAStore() throws Exception {
    String store = store();
    try (Run.Going serving =
        new Run.Going(
            "serve",
            "../examples/src/test/stubs/harbour.stubs.yaml",
            "--control",
            "0",
            "--no-token",
            "--store",
            store)) {
      String control = serving.message("control at");
      JsonNode shown =
          new ObjectMapper()
              .readTree(
                  HttpClient.newHttpClient()
                      .send(
                          HttpRequest.newBuilder(URI.create(control + "/compat")).build(),
                          BodyHandlers.ofString())
                      .body());
      assertEquals("unmet", shown.at("/pairs/0/cells/0/outcome").asText(), shown.toPrettyString());
      assertEquals("met", shown.at("/pairs/0/cells/1/outcome").asText(), shown.toPrettyString());
    }
  }

  @Test
  void aContractIsComparedWithTheDescriptionOfItsProvider() throws Exception {
    Run run =
        Run.in(
            Path.of(""),
            "check",
            CONTRACTS.resolve(FILE).toString(),
            "--openapi",
            "../examples/src/test/stubs/berths.openapi.yaml",
            "--unused");

    assertEquals(1, run.code(), run.out() + run.err());
    for (String part :
        List.of(
            "\"book a berth\" needs header location: always present. By the API description, it is"
                + " not described",
            "\"no berth is left\" needs $.status: always present. By the API description, it is"
                + " optional",
            "GET /bookings: no consumer uses it.",
            "POST /bookings, response 503: no consumer uses it.",
            "POST /bookings, response 201, $.booking: no consumer uses it.")) {
      assertTrue(run.out().contains(part), part + " in " + run.out());
    }
  }

  /** The contract in the examples is the one that their tests write. */
  @Test
  void theContractOfTheExamplesIsCurrent() throws Exception {
    Path written = Path.of("../examples/target/contracts").resolve(FILE);
    assumeTrue(Files.exists(written), "the tests of the examples have not run");
    if (Boolean.getBoolean("reference.refresh")) {
      Files.writeString(CONTRACTS.resolve(FILE), Files.readString(written));
    }

    assertEquals(Files.readString(written), Files.readString(CONTRACTS.resolve(FILE)));
  }
}
