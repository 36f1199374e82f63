// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import dev.cachette.Cachette;
import dev.cachette.internal.identity.file.IdentityFileSchema;
import dev.cachette.internal.json.JsonSchemas;
import dev.cachette.internal.yaml.Trees;
import dev.cachette.stubfile.StubFileException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Identity files: what they declare, and what is reported of wrong ones. */
class IdentityFileTest {

  private static final String WHOLE =
      """
      issuer: https://id.example
      signedWith: ES256
      users:
        mara: { name: Mara Quill, email: mara@marrow-bay.example, groups: [pilots], berths: 4 }
        olin:
      clients:
        harbour-desk:
          secret: s3cret-of-the-desk
          redirectUris: https://desk.example/signed-in
          scopes: [openid, email]
          audience: https://berths.example
        tide-clock:
      lifetimes: { accessToken: 90s, code: PT2M }
      allow: STATE
      """;

  @TempDir private Path folder;

  private Path file(String text) throws IOException {
    return Files.writeString(folder.resolve("desk.identity.yaml"), text);
  }

  @Test
  void declaresAProvider() throws Exception {
    TestClient client = new TestClient();
    try (Cachette net = Cachette.open()) {
      IdentityProvider id = IdentityProvider.load(net, file(WHOLE));
      assertEquals("https://id.example", id.issuer());
      JsonNode tokens = client.tokens("state", "");
      assertEquals(90, tokens.path("expires_in").asInt());
      JsonNode claims = TestClient.claims(tokens.path("access_token").asText());
      assertEquals("mara", claims.path("sub").asText());
      assertEquals("[\"pilots\"]", claims.path("groups").toString());
      assertEquals(4, claims.path("berths").asInt());
      assertEquals("https://berths.example", claims.path("aud").asText());
      String header = tokens.path("id_token").asText().split("\\.")[0];
      assertTrue(
          new String(java.util.Base64.getUrlDecoder().decode(header)).contains("ES256"), header);
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '#',
      value = {
        "''                             | 1:1 | the file is empty. Fix: begin with issuer:",
        "users: {}                      | 1:1 | needs its issuer. Fix: issuer: https://id.example",
        "issuer: [                      | 1:10 | not valid YAML",
        "- a                            | 1:1 | expected a mapping, found a sequence.",
        "issuer: id.example             | 1:9 | issuer: ",
        "issuer: https://id.example?a=b | 1:9 | an issuer is a URL without a query",
        "isuer: x                       | 1:1 | Did you mean \"issuer\"?",
        "signedWith: RS512              | 1:13 | unknown algorithm \"RS512\"",
        "allow: [PKCE, STAET]           | 1:15 | Did you mean \"STATE\"?",
        "loginPage: yes                 | 1:12 | expected true or false, found \"yes\".",
        "users: [mara]                  | 1:8 | expected a mapping, found a sequence.",
        "users: { mara: yes }           | 1:16 | users.mara: expected a mapping, found \"yes\".",
        "users: { mara: { email: } }    | 1:24 | the claim has no value",
        "users: { ' ': {} }             | 1:10 | a user needs a name.",
        "users: { mara: {}, mara: {} }  | 1:20 | duplicate key \"mara\"",
        "clients: { desk: { secrt: x } } | 1:20 | Did you mean \"secret\"?",
        "clients: { d: { redirectUris: [/a] } } | 1:32 | an absolute URI without a fragment",
        "clients: { d: { redirectUris: 'http://a/#b' } } | 1:31 | without a fragment",
        "clients: { d: { publicKeys: { a: b } } } | 1:29 | are a JSON Web Key Set",
        "clients: { d: { secret: [a] } } | 1:25 | expected a string, found a sequence.",
        "lifetimes: { code: soon }      | 1:20 | lifetimes.code: ",
        "lifetimes: { code: 10ms }      | 1:20 | a lifetime needs at least a second",
        "lifetimes: { cod: 1m }         | 1:14 | unknown lifetime \"cod\".",
      })
  void reportsWhatIsWrong(String text, String place, String message) throws IOException {
    Path file = file(text.equals("''") ? "" : text);
    StubFileException wrong = assertThrows(StubFileException.class, () -> IdentityFile.read(file));
    String all = wrong.getMessage();
    assertTrue(all.contains(file + ":" + place + ": "), all);
    assertTrue(all.contains(message), all);
  }

  @Test
  void reportsAllProblemsTogether() throws IOException {
    Path file = file("issuer: x\nusers: 1\nclients: 2\nsignedWith: 3\nwhat: 4\n");
    StubFileException wrong = assertThrows(StubFileException.class, () -> IdentityFile.read(file));
    assertEquals(
        List.of(1, 2, 3, 4, 5),
        wrong.problems().stream().map(it -> it.line()).toList(),
        wrong.getMessage());
  }

  @Test
  void missingFilesAreReported() {
    assertThrows(UncheckedIOException.class, () -> IdentityFile.read(folder.resolve("none.yaml")));
  }

  @Test
  void filesAreTold() throws IOException {
    assertTrue(IdentityFile.isOne(file(WHOLE)));
    assertFalse(IdentityFile.isOne(file("stubs: []")));
    assertFalse(IdentityFile.isOne(file("[")));
    Files.write(folder.resolve("latin.yaml"), new byte[] {'a', (byte) 0xe9, (byte) 0xff});
    assertFalse(IdentityFile.isOne(folder.resolve("latin.yaml")));
  }

  @Test
  void theSchemaIsThatOfTheKeys() throws IOException {
    ObjectMapper mapper = new ObjectMapper().enable(SerializationFeature.INDENT_OUTPUT);
    Object plain = mapper.readValue(IdentityFileSchema.document().toString(), Object.class);
    String made = mapper.writeValueAsString(plain).replace("\" : ", "\": ") + "\n";
    Path schema = Path.of("..", "docs", "schema", "cachette-identity.schema.json");
    if (Boolean.getBoolean("reference.refresh")) {
      Files.writeString(schema, made);
    }
    assertEquals(made, Files.exists(schema) ? Files.readString(schema) : "");
  }

  @Test
  void theSchemaAcceptsWhatIsRead() {
    JsonSchemas schema = new JsonSchemas(IdentityFileSchema.document());
    assertEquals(List.of(), problems(schema, WHOLE));
    for (String wrong :
        List.of(
            "users: {}",
            "{ issuer: x, isuer: y }",
            "{ issuer: x, signedWith: RS512 }",
            "{ issuer: x, lifetimes: { code: soon } }",
            "{ issuer: x, clients: { a: { secrt: b } } }")) {
      assertTrue(!problems(schema, wrong).isEmpty(), wrong);
    }
  }

  private static List<?> problems(JsonSchemas schema, String text) {
    JsonNode tree = Trees.read(text, (line, column, path, message) -> {}).orElseThrow().json();
    return schema.differences(tree);
  }
}
