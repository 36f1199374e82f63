package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.http.MediaType;
import dev.cachette.http.Query;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.Multipart;
import dev.cachette.internal.content.Parameters;
import dev.cachette.internal.content.Part;
import dev.cachette.internal.json.Json;
import java.nio.charset.StandardCharsets;
import java.util.Optional;

/**
 * A body as a value that can be validated by a schema.
 *
 * @param value the value; empty if schemas do not apply to such a body
 * @param problem why it cannot be read; empty if it can
 */
record BodyValue(Optional<JsonNode> value, Optional<String> problem) {

  private static final JsonNodeFactory JSON = JsonNodeFactory.instance;

  private static BodyValue of(JsonNode value) {
    return new BodyValue(Optional.of(value), Optional.empty());
  }

  private static BodyValue failed(String problem) {
    return new BodyValue(Optional.empty(), Optional.of(problem));
  }

  /** Parses a body by its media type: JSON, a form, multipart, or text. */
  static BodyValue of(Content content, MediaType type, Element schema) {
    if (content.encodingProblem().isPresent()) {
      return failed(content.encodingProblem().get());
    }
    if (type.isJson()) {
      Optional<String> problem = Json.problemIn(content.text());
      return problem.map(why -> failed("not valid JSON, " + why)).orElseGet(() -> json(content));
    }
    if (type.subtype().equals("x-www-form-urlencoded")) {
      return of(form(Query.read(content.text()), schema));
    }
    if (type.type().equals("multipart")) {
      return multipart(content, schema);
    }
    boolean text = type.type().equals("text") && SchemaTypes.of(schema).contains("string");
    return text
        ? of(JSON.textNode(content.text()))
        : new BodyValue(Optional.empty(), Optional.empty());
  }

  private static BodyValue json(Content content) {
    return content.json().map(BodyValue::of).orElseGet(() -> failed("not valid JSON"));
  }

  private static ObjectNode form(Query fields, Element schema) {
    ObjectNode object = JSON.objectNode();
    for (String name : fields.names()) {
      Element property = SchemaTypes.property(schema, name);
      if (SchemaTypes.of(property).contains("array")) {
        ArrayNode array = object.putArray(name);
        Element items = property.followed().get("items");
        fields.all(name).forEach(text -> array.add(SchemaTypes.value(text, items)));
      } else {
        object.set(name, SchemaTypes.value(fields.first(name).orElse(""), property));
      }
    }
    return object;
  }

  private static BodyValue multipart(Content content, Element schema) {
    Optional<String> boundary =
        content
            .headers()
            .first("content-type")
            .flatMap(value -> Parameters.of(value).named("boundary"));
    if (boundary.isEmpty()) {
      return failed("multipart content whose type has no boundary");
    }
    ObjectNode object = JSON.objectNode();
    try {
      for (Part part : Multipart.parts(content.bytes(), boundary.get())) {
        part.name().ifPresent(name -> add(object, name, part, schema));
      }
    } catch (IllegalArgumentException malformed) {
      return failed("malformed multipart content: " + malformed.getMessage());
    }
    return of(object);
  }

  private static void add(ObjectNode object, String name, Part part, Element schema) {
    Element property = SchemaTypes.property(schema, name);
    if (SchemaTypes.of(property).contains("array")) {
      object.withArray(name).add(value(part, property.followed().get("items")));
    } else {
      object.set(name, value(part, property));
    }
  }

  private static JsonNode value(Part part, Element schema) {
    String text = part.body().text(StandardCharsets.UTF_8);
    boolean json =
        part.headers().contentType().filter(MediaType::isJson).isPresent()
            || SchemaTypes.of(schema).contains("object");
    return json && Json.problemIn(text).isEmpty()
        ? Json.tree(text)
        : SchemaTypes.value(text, schema);
  }
}
