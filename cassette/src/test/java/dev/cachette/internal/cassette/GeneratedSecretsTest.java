// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.databind.node.TextNode;
import dev.cachette.Generator;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.uri.Percent;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** A secret at a generated place, in a generated body, within generated encodings. */
class GeneratedSecretsTest {

  private static final int CASES = 4_000;
  private static final String[] NAMES = {
    "password", "accessToken", "api_key", "client-secret", "newPassword", "pin", "licenseKey"
  };

  @Test
  void aNamedSecretIsHiddenAndNothingElseIsChanged() {
    for (int seed = 0; seed < CASES; seed++) {
      Generator generator = new Generator(seed);
      String secret = "zz" + generator.word(7);
      Body body = body(generator, secret);

      String masked = Masking.body(body.type, body.text);

      int number = seed;
      assertFalse(
          new Leak(secret).isIn(masked.getBytes(StandardCharsets.UTF_8)),
          () -> "seed " + number + ": " + body + "\nmasked " + masked);
      if (body.plain) {
        assertEquals(body.text, masked.replace(Masking.MASK, secret), "seed " + seed);
      }
    }
  }

  /** A body; plain if the secret is there as it is, not encoded. */
  private record Body(Optional<String> type, String text, boolean plain) {}

  private static Body body(Generator generator, String secret) {
    String name = generator.one(NAMES);
    return switch (generator.below(6)) {
      case 0 -> json(generator, name, secret, 3);
      case 1 -> {
        String text =
            "<m><a b='1'>x</a>"
                + generator.one(
                    "<" + name + ">" + secret + "</" + name + ">",
                    "<v " + name + "=\"" + secret + "\"/>",
                    "<e key='" + name + "'>" + secret + "</e>",
                    "<" + name + "><![CDATA[" + secret + "]]></" + name + ">")
                + "<c>ü &amp; y</c></m>";
        yield new Body(Optional.of(generator.one("text/xml", "application/a+xml")), text, true);
      }
      case 2 ->
          new Body(
              Optional.of("application/x-www-form-urlencoded"),
              "a=1%202&" + Percent.encodeForm(name) + "=" + secret + "&b=%C3%BC+x",
              true);
      case 3 ->
          new Body(
              Optional.of("multipart/form-data; boundary=tide"),
              "--tide\r\nContent-Disposition: form-data; name=\"note\"\r\n\r\nx = y\r\n"
                  + "--tide\r\nContent-Disposition: form-data; name=\""
                  + name
                  + "\"\r\n\r\n"
                  + secret
                  + "\r\n--tide--\r\n",
              true);
      case 4 ->
          new Body(
              Optional.of("text/plain"),
              generator.one("", "user = ada\n", "04:10 INFO ")
                  + name
                  + generator.one("=", ": ", " = ", ":", " =")
                  + generator.one(secret, '"' + secret + '"', "'" + secret + "'")
                  + generator.one("", "\n", " next", "; a=b", " \" x", " ' x"),
              true);
      default -> nested(generator, name, secret);
    };
  }

  private static Body json(Generator generator, String name, String secret, int depth) {
    ObjectNode root = generator.object(depth);
    ObjectNode at = root;
    for (JsonNode child : root) {
      at = child instanceof ObjectNode object && generator.below(2) == 0 ? object : at;
    }
    at.put(name, secret);
    String text = generator.otherwise(root);
    boolean plain = text.contains(secret);
    return new Body(generator.one(Optional.of("application/json"), Optional.empty()), text, plain);
  }

  /** JSON in a string, in Base64, in a form, twice. */
  private static Body nested(Generator generator, String name, String secret) {
    String text = "{\"user\":\"ada\",\"" + name + "\":\"" + secret + "\"}";
    for (int depth = 1 + generator.below(2); depth > 0; depth--) {
      String inner = text;
      text =
          switch (generator.below(4)) {
            case 0 -> "{\"data\":" + quoted(inner) + "}";
            case 1 ->
                "{\"data\":\""
                    + Base64.getEncoder().encodeToString(inner.getBytes(StandardCharsets.UTF_8))
                    + "\"}";
            case 2 -> "a=1&data=" + Percent.encodeForm(inner);
            default ->
                "<m><data>" + inner.replace("&", "&amp;").replace("<", "&lt;") + "</data></m>";
          };
    }
    return new Body(Optional.empty(), text, false);
  }

  private static String quoted(String text) {
    return TextNode.valueOf(text).toString();
  }
}
