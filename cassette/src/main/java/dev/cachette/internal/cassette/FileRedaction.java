// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.databind.node.TextNode;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Redaction;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import java.io.OutputStream;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Map;

/**
 * Redacts an existing file, and leaves everything else unchanged: unknown members, and the order.
 * Entries are read one by one, so that a large file needs little memory: first all are looked at,
 * then those again that may have what turned out to be secret later. Not thread-safe, but several
 * threads may each look at a part of the entries with one of their own.
 */
public final class FileRedaction {

  private static final int NOT_LOOKED_AT = -1;

  private final RecordedExchanges recordings;
  private final Redactor redactor;
  private final BitSet changed = new BitSet();

  /** The number of secrets that were known after an entry was looked at. */
  private final int[] knownAt;

  /** True if something was changed in the current entry. */
  private boolean changing;

  private FileRedaction(RecordedExchanges recordings, Redactor redactor) {
    this.recordings = recordings;
    this.redactor = redactor;
    this.knownAt = new int[recordings.size()];
    Arrays.fill(knownAt, NOT_LOOKED_AT);
  }

  /**
   * Prepares it; {@link #lookAt} is to be called for all entries, in order, and then {@link
   * #finish}.
   */
  public static FileRedaction begin(RecordedExchanges recordings, Redaction rules) {
    return new FileRedaction(recordings, new Redactor(rules));
  }

  /** Returns another one for the same file, which knows the same secrets, for another thread. */
  public FileRedaction another() {
    FileRedaction other = new FileRedaction(recordings, redactor.another());
    other.changed.or(changed);
    return other;
  }

  /** Adds what another one has found in entries that this one has not looked at. */
  public void add(FileRedaction other) {
    redactor.add(other.redactor);
    changed.or(other.changed);
    for (int at = 0; at < knownAt.length; at++) {
      knownAt[at] = Math.max(knownAt[at], other.knownAt[at]);
    }
  }

  /**
   * Looks at an entry.
   *
   * @return the exchange, as it is
   * @throws dev.cachette.cassette.CassetteException if it is malformed
   */
  public Exchange lookAt(int at) {
    RecordedExchanges.Read entry = recordings.read(at);
    lookAt(at, entry);
    return entry.exchange();
  }

  /**
   * As {@link #lookAt}, but refuses an exchange whose body was not recorded.
   *
   * @throws dev.cachette.cassette.CassetteException if there is a size, but no body, or if the
   *     entry is malformed
   */
  public Exchange lookAtReplayable(int at) {
    RecordedExchanges.Read entry = recordings.read(at);
    lookAt(at, entry);
    recordings.requireBody(at, entry);
    return entry.exchange();
  }

  private void lookAt(int at, RecordedExchanges.Read entry) {
    redact(at, entry);
    changed.set(at, changing);
    knownAt[at] = redactor.secrets();
  }

  /** Looks again at entries that may have what turned out to be secret after them. */
  public void finish() {
    for (int at = 0; at < recordings.size(); at++) {
      boolean isLookedAt = knownAt[at] != NOT_LOOKED_AT;
      if (isLookedAt && knownAt[at] < redactor.secrets() && !changed.get(at)) {
        lookAt(at);
      }
    }
  }

  /** Returns a redacted exchange, by all that is known. */
  public Exchange exchange(int at) {
    return redactor.redact(at + 1, recordings.get(at));
  }

  /** Returns an exchange of which only the request is redacted, which takes less time. */
  public Exchange withRedactedRequest(int at) {
    Exchange exchange = recordings.get(at);
    return exchange.with(redactor.redact(exchange.request()));
  }

  /** Returns the number of entries. */
  public int size() {
    return recordings.size();
  }

  /** Returns the number of exchanges with secrets. */
  public int changed() {
    return changed.cardinality();
  }

  /** Returns the indexes of exchanges with secrets, from 0. */
  public List<Integer> changedAt() {
    return changed.stream().boxed().toList();
  }

  /** Returns what is redacted because it looks like a secret, each with its place. */
  public List<String> likely() {
    return redactor.likely().list();
  }

  /**
   * Writes the redacted file.
   *
   * @param entries what {@link #entry} returns for each of its entries
   */
  public void writeTo(OutputStream out, Iterable<String> entries) {
    ObjectNode log = recordings.index().log().deepCopy();
    ObjectNode root = recordings.index().root().deepCopy();
    redactTexts(log);
    redactTexts(root);
    HarWriter.write(out, log, root, entries);
  }

  /** Returns the text of a redacted entry. */
  public String entry(int at) {
    if (!changed.get(at)) {
      return recordings.text(at);
    }
    RecordedExchanges.Read entry = recordings.read(at);
    redact(at, entry);
    return HarWriter.entry((ObjectNode) entry.tree());
  }

  /** Redacts the tree of an entry. */
  private void redact(int at, RecordedExchanges.Read entry) {
    changing = false;
    Exchange before = entry.exchange();
    Exchange after = redactor.redact(at + 1, before);
    JsonNode tree = entry.tree();
    if (tree.get("request") instanceof ObjectNode request) {
      set(request, "url", redactor.url(request.path("url").asText()));
      redactHeaders(request);
      redactParameters(request, after);
      redactCookies(request);
      if (request.get("postData") instanceof ObjectNode body) {
        redactBody(
            body,
            before.request().body(),
            after.request().body(),
            after.request().headers(),
            "_encoding");
        redactFields(body);
      }
    }
    if (tree.get("response") instanceof ObjectNode response && before.response().isPresent()) {
      redactHeaders(response);
      redactCookies(response);
      if (response.get("content") instanceof ObjectNode body) {
        redactBody(
            body,
            before.response().get().body(),
            after.response().orElseThrow().body(),
            after.response().get().headers(),
            "encoding");
      }
    }
    redactTexts(tree);
  }

  private void set(ObjectNode object, String member, String value) {
    if (!value.equals(object.path(member).asText())) {
      object.put(member, value);
      changing = true;
    }
  }

  private void redactHeaders(ObjectNode message) {
    for (JsonNode header : message.path("headers")) {
      if (header instanceof ObjectNode object) {
        set(
            object,
            "value",
            redactor.header(object.path("name").asText(), object.path("value").asText()));
      }
    }
  }

  /** The query parameters, which repeat those of the URL. */
  private void redactParameters(ObjectNode request, Exchange redacted) {
    for (JsonNode parameter : request.path("queryString")) {
      String name = parameter.path("name").asText();
      List<String> values = redacted.request().uri().query().all(name);
      if (parameter instanceof ObjectNode object && values.size() == 1) {
        set(object, "value", values.get(0));
      }
    }
  }

  private void redactCookies(ObjectNode message) {
    for (JsonNode cookie : message.path("cookies")) {
      if (cookie instanceof ObjectNode object) {
        String name = object.path("name").asText();
        String pair = redactor.header("cookie", name + "=" + object.path("value").asText());
        set(object, "value", pair.substring(pair.indexOf('=') + 1));
      }
    }
  }

  private void redactFields(ObjectNode body) {
    for (JsonNode field : body.path("params")) {
      if (field instanceof ObjectNode object && object.has("value")) {
        String name = object.path("name").asText();
        set(object, "value", redactor.field(name, object.path("value").asText()));
      }
    }
  }

  private void redactBody(
      ObjectNode written, Body before, Body after, Headers headers, String encoding) {
    if (!written.has("text") || before.equals(after)) {
      return;
    }
    ObjectNode redacted = JsonNodeFactory.instance.objectNode();
    HarContent.write(redacted, headers, after, encoding);
    written.set("text", redacted.path("text"));
    if (redacted.has("encoding")) {
      written.set("encoding", redacted.get("encoding"));
    } else {
      written.remove("encoding");
    }
    changing = true;
  }

  /** Redacts secrets everywhere else. */
  private void redactTexts(JsonNode node) {
    if (node instanceof ObjectNode object) {
      for (Map.Entry<String, JsonNode> member : object.properties()) {
        if (!member.getValue().isTextual()) {
          redactTexts(member.getValue());
        } else if (!isDone(object, member.getKey())) {
          member.setValue(redacted(member.getValue()));
        }
      }
    } else if (node instanceof ArrayNode array) {
      for (int at = 0; at < array.size(); at++) {
        if (array.get(at).isTextual()) {
          array.set(at, redacted(array.get(at)));
        } else {
          redactTexts(array.get(at));
        }
      }
    }
  }

  /** The text of a body, and the URL, were redacted by their formats. */
  private static boolean isDone(ObjectNode object, String member) {
    return member.equals("text") && object.has("mimeType")
        || member.equals("url") && object.has("method");
  }

  private JsonNode redacted(JsonNode text) {
    String now = redactor.text(text.textValue());
    if (now.equals(text.textValue())) {
      return text;
    }
    changing = true;
    return TextNode.valueOf(now);
  }
}
