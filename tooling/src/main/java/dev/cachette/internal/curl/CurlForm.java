// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.curl;

import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.content.Content;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The parts of a multipart form (RFC 7578) of a curl command, as conditions of a stub. */
final class CurlForm {

  private static final Pattern ATTRIBUTE = Pattern.compile(";\\s*(type|filename)=([^;]*)");

  private final ObjectNode parts = JsonNodeFactory.instance.objectNode();
  private final Path folder;

  CurlForm(Path folder) {
    this.folder = folder;
  }

  /** Adds {@code name=text}, {@code name=@file} or {@code name=<file}, and their attributes. */
  void add(String field) {
    int equals = equalsIn(field);
    String name = field.substring(0, equals);
    String value = field.substring(equals + 1);
    int end = value.indexOf(';') < 0 ? value.length() : value.indexOf(';');
    ObjectNode part = part(name);
    Matcher attributes = ATTRIBUTE.matcher(value);
    while (attributes.find()) {
      String attribute = attributes.group(1).equals("type") ? "contentType" : "fileName";
      part.put(attribute, unquoted(attributes.group(2).strip()));
    }
    String content = unquoted(value.substring(0, end));
    if (content.startsWith("@") || content.startsWith("<")) {
      String file = content.substring(1);
      if (content.startsWith("@") && !part.has("fileName")) {
        part.put("fileName", Path.of(file).getFileName().toString());
      }
      setContent(part, CurlLine.read(folder, file));
    } else {
      setContent(part, content.getBytes(StandardCharsets.UTF_8));
    }
  }

  /** Adds {@code name=text}, literally. */
  void addText(String field) {
    int equals = equalsIn(field);
    setContent(
        part(field.substring(0, equals)),
        field.substring(equals + 1).getBytes(StandardCharsets.UTF_8));
  }

  boolean isEmpty() {
    return parts.isEmpty();
  }

  /** Returns the conditions. */
  ObjectNode condition() {
    return parts;
  }

  private static int equalsIn(String field) {
    int equals = field.indexOf('=');
    if (equals < 0) {
      throw new IllegalArgumentException("the form field " + field + " has no =");
    }
    return equals;
  }

  private ObjectNode part(String name) {
    return parts.withObjectProperty(name);
  }

  private static void setContent(ObjectNode part, byte[] content) {
    part.putObject("content")
        .set(
            "body",
            BodyFormats.condition(
                Content.of(
                    Headers.none()
                        .with("content-type", part.path("contentType").asText("text/plain")),
                    Body.of(content))));
  }

  private static String unquoted(String value) {
    boolean quoted = value.length() > 1 && value.startsWith("\"") && value.endsWith("\"");
    return quoted
        ? value.substring(1, value.length() - 1).replace("\\\"", "\"").replace("\\\\", "\\")
        : value;
  }
}
