package dev.cachette.internal.cassette;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.databind.node.TextNode;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Redaction;
import dev.cachette.internal.json.Json;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * Redacts an existing file, and leaves everything else unchanged: unknown members, and the order.
 */
public final class FileRedaction {

  private final RecordedExchanges recordings;
  private final Redactor redactor;
  private final List<Exchange> before;
  private final List<Exchange> after;
  private final List<String> entries = new ArrayList<>();
  private final List<Integer> changed = new ArrayList<>();

  /** Scans the whole file. */
  public FileRedaction(RecordedExchanges recordings, Redaction rules) {
    this.recordings = recordings;
    this.redactor = new Redactor(rules);
    this.before = List.copyOf(recordings);
    this.after = redactor.redactAll(before);
    for (int at = 0; at < before.size(); at++) {
      String text = recordings.text(at);
      String redacted = redacted(text, at);
      entries.add(redacted);
      if (!redacted.equals(text)) {
        changed.add(at);
      }
    }
  }

  /** Returns the number of exchanges with secrets. */
  public int changed() {
    return changed.size();
  }

  /** Returns the indexes of exchanges with secrets, from 0. */
  public List<Integer> changedAt() {
    return List.copyOf(changed);
  }

  /** Returns what is redacted because it looks like a secret, each with its place. */
  public List<String> likely() {
    return redactor.likely().list();
  }

  /** Writes the redacted file. */
  public void writeTo(OutputStream out) {
    ObjectNode log = recordings.index().log().deepCopy();
    ObjectNode root = recordings.index().root().deepCopy();
    redactTexts(log);
    redactTexts(root);
    HarWriter.write(out, log, root, entries);
  }

  private String redacted(String text, int at) {
    JsonNode old = Json.tree(text);
    ObjectNode entry = old.deepCopy();
    if (entry.get("request") instanceof ObjectNode request) {
      request.put("url", redactor.url(request.path("url").asText()));
      redactHeaders(request);
      redactParameters(request, after.get(at));
      redactCookies(request);
      if (request.get("postData") instanceof ObjectNode body) {
        redactBody(body, HarWriter.tree(after.get(at)).at("/request/postData"));
        redactFields(body);
      }
    }
    if (entry.get("response") instanceof ObjectNode response) {
      redactHeaders(response);
      redactCookies(response);
      if (response.get("content") instanceof ObjectNode body) {
        redactBody(body, HarWriter.tree(after.get(at)).at("/response/content"));
      }
    }
    redactTexts(entry);
    return entry.equals(old) ? text : HarWriter.entry(entry);
  }

  private void redactHeaders(ObjectNode message) {
    for (JsonNode header : message.path("headers")) {
      if (header instanceof ObjectNode object) {
        object.put(
            "value", redactor.header(object.path("name").asText(), object.path("value").asText()));
      }
    }
  }

  /** The query parameters, which repeat those of the URL. */
  private static void redactParameters(ObjectNode request, Exchange redacted) {
    for (JsonNode parameter : request.path("queryString")) {
      String name = parameter.path("name").asText();
      List<String> values = redacted.request().uri().query().all(name);
      if (parameter instanceof ObjectNode object && values.size() == 1) {
        object.put("value", values.get(0));
      }
    }
  }

  private void redactCookies(ObjectNode message) {
    for (JsonNode cookie : message.path("cookies")) {
      if (cookie instanceof ObjectNode object) {
        String name = object.path("name").asText();
        String pair = redactor.header("cookie", name + "=" + object.path("value").asText());
        object.put("value", pair.substring(pair.indexOf('=') + 1));
      }
    }
  }

  private void redactFields(ObjectNode body) {
    for (JsonNode field : body.path("params")) {
      if (field instanceof ObjectNode object && object.has("value")) {
        String name = object.path("name").asText();
        object.put("value", redactor.field(name, object.path("value").asText()));
      }
    }
  }

  private static void redactBody(ObjectNode body, JsonNode redacted) {
    if (body.has("text") && redacted.has("text")) {
      body.set("text", redacted.get("text"));
      if (redacted.has("encoding")) {
        body.set("encoding", redacted.get("encoding"));
      } else {
        body.remove("encoding");
      }
    }
  }

  /** Redacts known secrets everywhere else. */
  private void redactTexts(JsonNode node) {
    if (node instanceof ObjectNode object) {
      for (Map.Entry<String, JsonNode> member : object.properties()) {
        if (member.getValue().isTextual()) {
          member.setValue(TextNode.valueOf(redactor.text(member.getValue().textValue())));
        } else {
          redactTexts(member.getValue());
        }
      }
    } else if (node instanceof ArrayNode array) {
      for (int at = 0; at < array.size(); at++) {
        if (array.get(at).isTextual()) {
          array.set(at, redactor.text(array.get(at).textValue()));
        } else {
          redactTexts(array.get(at));
        }
      }
    }
  }
}
