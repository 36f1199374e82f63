package dev.cachette.cli;

import com.fasterxml.jackson.databind.node.TextNode;
import dev.cachette.calls.Call;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Response;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.secret.Masking;
import java.nio.charset.Charset;
import java.util.LinkedHashMap;
import java.util.Map;

/** One call with everything that is known of it, as JSON; secrets are masked. */
final class CallJson {

  /** A longer body is cut; nobody reads it in a list. */
  private static final int MOST_CHARACTERS = 100_000;

  private CallJson() {}

  static Map<String, Object> of(Call call) {
    Map<String, Object> json = CallLine.json(call);
    json.put("headers", headers(call.headers()));
    addBody(json, call.headers(), call.body());
    if (CallLine.isUnexpected(call)) {
      json.put("explanation", call.response().text());
    } else if (CallLine.hasResponse(call)) {
      json.put("response", response(call.response()));
    }
    return json;
  }

  private static Map<String, Object> response(Response response) {
    Map<String, Object> json = new LinkedHashMap<>();
    json.put("status", response.status());
    json.put("headers", headers(response.headers()));
    addBody(json, response.headers(), response.body());
    return json;
  }

  private static Map<String, String> headers(Headers headers) {
    Map<String, String> json = new LinkedHashMap<>();
    headers.forEach(
        it ->
            json.merge(
                it.name(),
                Masking.header(it.name(), it.value()),
                (one, more) -> one + ", " + more));
    return json;
  }

  /** Adds a body as JSON if it is JSON, else as a string; of a binary one, only its size. */
  private static void addBody(Map<String, Object> json, Headers headers, Body body) {
    json.put("bodySize", body.size());
    Charset charset = headers.charset();
    String text = new String(body.bytes(), charset);
    if (body.isEmpty() || text.indexOf('\uFFFD') >= 0 || text.indexOf('\0') >= 0) {
      return;
    }
    String masked = Masking.body(headers.first("content-type"), text);
    if (masked.length() > MOST_CHARACTERS) {
      json.put("body", TextNode.valueOf(masked.substring(0, MOST_CHARACTERS)));
      json.put("bodyIsCut", true);
    } else {
      boolean isJson =
          BodyFormats.named(headers.first("content-type")).isJson()
              && Json.problemIn(masked).isEmpty();
      json.put("body", isJson ? Json.tree(masked) : TextNode.valueOf(masked));
    }
  }
}
