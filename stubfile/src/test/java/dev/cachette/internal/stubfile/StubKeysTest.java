// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.answer.Answers;
import dev.cachette.internal.model.Behavior;
import dev.cachette.internal.model.DeclaredStub;
import dev.cachette.internal.model.FailFirst;
import dev.cachette.internal.model.Flaky;
import dev.cachette.internal.model.RateLimit;
import dev.cachette.internal.model.StubSpec;
import dev.cachette.match.RequestPattern;
import dev.cachette.result.StubReference;
import java.time.Duration;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** The keys for when and how often a stub answers, in each combination. */
@Tag("once")
class StubKeysTest {

  private static final ObjectMapper MAPPER = new ObjectMapper();

  /** A value for each key. */
  private static final String VALUES =
      """
      {"looping": true, "onceEach": true, "overriding": true, "unchecked": true, "times": 3,
       "from": "2031-04-02T12:00:00Z", "until": "2031-04-03T12:00:00Z", "saveBodyTo": "tides.bin",
       "onCall": {"2": {"status": 500}, "7": "connectionReset"},
       "rateLimit": {"calls": 5, "window": "PT1M"}, "failFirst": 2,
       "flaky": {"probability": 0.2, "failures": [{"status": 502}]}}
      """;

  @Test
  void eachCombinationIsReadAndWritten() throws Exception {
    ObjectNode values = (ObjectNode) MAPPER.readTree(VALUES);
    List<String> keys = values.properties().stream().map(it -> it.getKey()).toList();
    assertEquals(StubKeys.BEHAVIOR.names(), Set.copyOf(keys));

    for (int bits = 0; bits < 1 << keys.size(); bits++) {
      ObjectNode stub = MAPPER.createObjectNode();
      stub.put("request", "GET https://tides.example/v1/tides");
      stub.putObject("answer").put("status", 204);
      for (int at = 0; at < keys.size(); at++) {
        if ((bits & 1 << at) != 0) {
          stub.set(keys.get(at), values.get(keys.get(at)));
        }
      }
      StubFile file =
          StubFile.read(
              "harbour", "{\"stubs\": " + MAPPER.writeValueAsString(stub) + "}", new NoFiles());

      if (stub.has("looping") && stub.has("onceEach")) {
        assertEquals(1, file.problems().size());
        assertTrue(file.problems().get(0).message().contains("cannot be"), file::toString);
      } else {
        assertEquals(List.of(), file.problems());
        DeclaredStub declared = DeclaredStub.alone(file.stubs().get(0).spec());
        ObjectNode written = StubWriter.write(declared).form().orElseThrow();
        assertEquals(stub, MAPPER.readTree(written.toString()));
      }
    }
  }

  /** Keys for contracts are kept as they are. */
  @Test
  void whatIsForContractsIsReadAndWritten() throws Exception {
    String stub =
        """
        {"request": "GET https://tides.example/v1/tides", "answer": {"status": 204},
         "given": ["a", {"state": "b", "parameters": {"n": 1}}],
         "needs": {"$.a": "optional", "etag": {"pattern": "x"}},
         "example": {"method": "GET", "url": "https://tides.example/v1/tides"},
         "shape": {"mediaType": "text/plain", "headers": {"etag": {}}, "body": {"type": "object"}},
         "neededBy": ["TidesTest.reads"]}
        """;
    String contract =
        "\"contract\": {\"consumer\": \"a\", \"provider\": \"b\", \"origin\":"
            + " \"https://b.example\"}";

    StubFile file =
        StubFile.read(
            "harbour", "{" + contract + ", \"stubs\": [" + stub + "]}", new WithoutFiles());

    assertEquals(List.of(), file.problems());
    ObjectNode written =
        StubWriter.write(DeclaredStub.alone(file.stubs().get(0).spec())).form().orElseThrow();
    assertEquals(MAPPER.readTree(stub), MAPPER.readTree(written.toString()));
    assertEquals(
        Set.of("given", "needs", "example", "shape", "neededBy"), ContractKeys.OF_STUB.names());
  }

  @Test
  void aContractNeedsItsNames() {
    StubFile file =
        StubFile.read(
            "harbour",
            "contract: { consumer: a, origin: b.example }\nstubs: []",
            new WithoutFiles());

    assertEquals(2, file.problems().size());
    assertTrue(file.problems().get(0).message().contains("a contract needs its provider."));
    for (String text :
        List.of("file: a.json", "recorded: { cassette: a, request: GET / }", "realService: true")) {
      StubFile refused =
          StubFile.read(
              "harbour",
              "stubs: [{ request: 'GET https://b.example/', answer: { " + text + " } }]",
              new WithoutFiles());
      assertTrue(
          refused.problems().get(0).message().contains("is not allowed in a contract file"), text);
    }
  }

  @Test
  void aFileHasNoPlaceForTwoOfAKind() {
    StubSpec plain =
        StubSpec.of(
            RequestPattern.of("GET https://tides.example/v1"),
            new StubReference("tides", "TidesTest.java:1"),
            List.of(Answers.status(204)));
    for (Behavior each :
        List.of(
            new FailFirst(2),
            new RateLimit(5, Duration.ofMinutes(1)),
            new Flaky(0.5, List.of(Answers.status(502))))) {
      DeclaredStub declared = DeclaredStub.alone(plain.with(each).with(each));

      assertEquals("it has two behaviors of the same kind", StubWriter.write(declared).obstacle());
    }
  }
}
