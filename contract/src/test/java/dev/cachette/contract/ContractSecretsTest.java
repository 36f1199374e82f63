// SPDX-License-Identifier: Apache-2.0
package dev.cachette.contract;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** No secret gets into a contract file, nor into the files beside it. */
class ContractSecretsTest {

  private static final String SECRET = "q7Zk29xWv8Lm3RtY5bNc";
  private static final int PART = 9;
  private static final String[] MEMBERS = {"password", "api_key", "accessToken", "clientSecret"};

  @TempDir private Path folder;

  /** A call with the secret at one place. */
  record Leak(String place, Call call) {

    interface Call {
      void make(Cachette net, ContractRecording contract, Desk desk);
    }

    @Override
    public String toString() {
      return place;
    }
  }

  static List<Leak> leaks() {
    String line = "POST http://berths.example/v1/bookings";
    String okay = "{\"ok\":true}";
    List<Leak> all = new ArrayList<>();
    headers(line, okay, all);
    members(line, okay, all);
    queriesAndStates(line, okay, all);
    others(line, okay, all);
    return all;
  }

  private static void headers(String line, String okay, List<Leak> all) {
    for (String header :
        new String[] {"authorization", "cookie", "x-api-key", "x-auth-token", "x-secret"}) {
      String value =
          header.equals("cookie")
              ? "session=" + SECRET
              : header.endsWith("authorization") ? "Bearer " + SECRET : SECRET;
      all.add(
          new Leak(
              "header " + header,
              (net, contract, desk) -> {
                net.stub(line).answer(json(okay));
                desk.post("/v1/bookings", "{}", header, value);
              }));
      all.add(
          new Leak(
              "condition on header " + header,
              (net, contract, desk) -> {
                net.stub(line).header(header, value).answer(json(okay));
                desk.post("/v1/bookings", "{}", header, value);
              }));
    }
  }

  private static void members(String line, String okay, List<Leak> all) {
    for (String member : MEMBERS) {
      String body = "{\"vessel\":\"Tern\",\"" + member + "\":\"" + SECRET + "\"}";
      all.add(
          new Leak(
              "request " + member,
              (net, contract, desk) -> {
                net.stub(line).answer(json(okay));
                desk.post("/v1/bookings", body);
              }));
      all.add(
          new Leak(
              "response " + member,
              (net, contract, desk) -> {
                net.stub(line).answer(json(body));
                desk.post("/v1/bookings", "{}");
              }));
      all.add(
          new Leak(
              "condition on " + member,
              (net, contract, desk) -> {
                net.stub(line).json("$." + member, SECRET).answer(json(okay));
                desk.post("/v1/bookings", body);
              }));
      all.add(
          new Leak(
              "condition on the body with " + member,
              (net, contract, desk) -> {
                net.stub(line).body(sameJson(body)).answer(json(okay));
                desk.post("/v1/bookings", body);
              }));
      all.add(
          new Leak(
              "exact value of " + member,
              (net, contract, desk) -> {
                var stub = net.stub(line).answer(json(body));
                contract.clause(stub).exactly("$." + member, SECRET);
                desk.post("/v1/bookings", "{}");
              }));
    }
  }

  private static void queriesAndStates(String line, String okay, List<Leak> all) {
    for (String member : MEMBERS) {
      all.add(
          new Leak(
              "query " + member,
              (net, contract, desk) -> {
                net.stub("GET http://berths.example/v1/berths").answer(json(okay));
                desk.get("/v1/berths?" + member + "=" + SECRET);
              }));
      all.add(
          new Leak(
              "query in the request line " + member,
              (net, contract, desk) -> {
                net.stub("GET http://berths.example/v1/berths?" + member + "=" + SECRET)
                    .answer(json(okay));
                desk.get("/v1/berths?" + member + "=" + SECRET);
              }));
      all.add(
          new Leak(
              "parameter of a state " + member,
              (net, contract, desk) -> {
                var stub = net.stub(line).answer(json(okay));
                contract.clause(stub).given("signed in", Map.of(member, SECRET));
                desk.post("/v1/bookings", "{}");
              }));
    }
  }

  private static void others(String line, String okay, List<Leak> all) {
    all.add(
        new Leak(
            "bearer",
            (net, contract, desk) -> {
              net.stub(line).bearer(SECRET).answer(json(okay));
              desk.post("/v1/bookings", "{}", "authorization", "Bearer " + SECRET);
            }));
    all.add(
        new Leak(
            "set-cookie",
            (net, contract, desk) -> {
              net.stub(line).answer(json(okay).header("set-cookie", "session=" + SECRET));
              desk.post("/v1/bookings", "{}");
            }));
    all.add(
        new Leak(
            "the same value elsewhere",
            (net, contract, desk) -> {
              net.stub(line).answer(json("{\"echo\":\"" + SECRET + "\"}"));
              desk.post("/v1/bookings", "{}", "authorization", "Bearer " + SECRET);
            }));
  }

  @ParameterizedTest
  @MethodSource("leaks")
  void itIsWrittenNowhere(Leak leak) {
    Recording.plainSession(
        folder,
        "harbour.SecretsTest",
        (net, contract) -> leak.call().make(net, contract, new Desk(Desk.PLAIN_BERTHS)));

    // What was masked in a condition would match nothing, so the condition is looser.
    assertFalse(Recording.text(folder).contains("****"), Recording.text(folder));
    assertEquals(1, Recording.text(folder).split("- name:").length - 1);
    for (int at = 0; at + PART <= SECRET.length(); at++) {
      String part = SECRET.substring(at, at + PART);
      assertFalse(all().contains(part), () -> part + " in\n" + all());
    }
  }

  private String all() {
    try (Stream<Path> files = Files.walk(folder)) {
      StringBuilder all = new StringBuilder();
      for (Path file : files.filter(Files::isRegularFile).toList()) {
        all.append(Files.readString(file, StandardCharsets.UTF_8));
      }
      return all.toString();
    } catch (IOException unreadable) {
      throw new UncheckedIOException(unreadable);
    }
  }

  @Test
  void aPlaceholderMustBeFilled() {
    Recording.plainSession(
        folder,
        "harbour.SecretsTest",
        (net, contract) -> {
          net.stub("POST http://berths.example/v1/bookings").answer(json("{\"ok\":true}"));
          new Desk(Desk.PLAIN_BERTHS)
              .post("/v1/bookings", "{\"password\":\"" + SECRET + "\"}", "x-api-key", "k" + SECRET);
        });

    try (BerthService berths =
        new BerthService().answers(200, "{\"ok\":true}", "content-type", "application/json")) {
      ContractVerification plain = Contracts.in(folder).of("berths").against(berths.url());
      String problem = plain.verify().clauses().get(0).explanation();
      assertTrue(problem.contains("placeholder for a secret"), problem);
      assertTrue(problem.contains("{{password}}"), problem);
      assertTrue(problem.contains("--secret password=VALUE"), problem);
      assertEquals(List.of(), berths.requests());

      assertTrue(
          Contracts.in(folder)
              .of("berths")
              .against(berths.url())
              .secret("password", "made-up-1")
              .header("x-api-key", () -> "made-up-2")
              .verify()
              .isMet());
      assertTrue(
          berths.requests().get(0).contains("{\"password\":\"made-up-1\"}"),
          berths.requests().get(0));
    }
  }
}
