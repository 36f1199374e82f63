// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.curl;

import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.convert.StubsOfExchanges;
import dev.cachette.internal.uri.Percent;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The requests of a curl command, as far as stubs can express them. */
final class CurlLine {

  /** Credentials, and headers that every client sends. */
  private static final Set<String> NOT_TELLING =
      Set.of("authorization", "cookie", "user-agent", "accept", "content-type");

  private static final String FORM = "application/x-www-form-urlencoded";

  private final Path folder;
  private final List<String> urls = new ArrayList<>();
  private final List<String> headers = new ArrayList<>();
  private final ByteArrayOutputStream data = new ByteArrayOutputStream();
  private final CurlForm form;
  private final List<String> query = new ArrayList<>();
  private @Nullable String method;
  private @Nullable String upload;
  private boolean hasData;
  private boolean asGet;
  private boolean head;
  private boolean json;

  private CurlLine(Path folder) {
    this.folder = folder;
    this.form = new CurlForm(folder);
  }

  /**
   * Returns the conditions for the requests of a command.
   *
   * @param words the command, which begins with curl
   * @param folder the folder of files that it names
   * @throws IllegalArgumentException if it has no URL, an option without its value, or a file that
   *     cannot be read
   */
  static List<ObjectNode> patterns(List<String> words, Path folder) {
    List<ObjectNode> patterns = new ArrayList<>();
    CurlLine line = new CurlLine(folder);
    for (CurlOptions.Option option : CurlOptions.of(words)) {
      if (option.name().equals("next")) {
        patterns.addAll(line.patterns());
        line = new CurlLine(folder);
      } else {
        line.add(option.name(), option.value());
      }
    }
    patterns.addAll(line.patterns());
    return patterns;
  }

  private void add(String option, String value) {
    switch (option) {
      case "url" -> urls.add(value);
      case "request" -> method = value;
      case "header" -> headers.add(value);
      case "get" -> asGet = true;
      case "head" -> head = true;
      case "data", "data-ascii" -> addData(withoutBreaks(orFile(value)), "&");
      case "data-raw" -> addData(bytes(value), "&");
      case "data-binary" -> addData(orFile(value), "&");
      case "data-urlencode" -> addData(bytes(encoded(value)), "&");
      case "json" -> {
        json = true;
        addData(orFile(value), "");
      }
      case "url-query" -> query.add(value.startsWith("+") ? value.substring(1) : encoded(value));
      case "form" -> form.add(value);
      case "form-string" -> form.addText(value);
      case "upload-file" -> upload = value;
      default -> {
        // It is about the connection or the output.
      }
    }
  }

  private void addData(byte[] more, String separator) {
    if (hasData) {
      data.writeBytes(bytes(separator));
    }
    hasData = true;
    data.writeBytes(more);
  }

  private byte[] orFile(String value) {
    return value.startsWith("@") ? read(folder, value.substring(1)) : bytes(value);
  }

  /** As {@code name=content}, {@code =content}, {@code content}, {@code name@file} or a file. */
  private String encoded(String value) {
    int equals = value.indexOf('=');
    int at = value.indexOf('@');
    if (equals >= 0 && (at < 0 || equals < at)) {
      String name = value.substring(0, equals);
      return (name.isEmpty() ? "" : name + "=") + Percent.encodeForm(value.substring(equals + 1));
    }
    if (at < 0) {
      return Percent.encodeForm(value);
    }
    String name = value.substring(0, at);
    String content = new String(read(folder, value.substring(at + 1)), StandardCharsets.UTF_8);
    return (name.isEmpty() ? "" : name + "=") + Percent.encodeForm(content);
  }

  static byte[] read(Path folder, String file) {
    if (file.equals("-")) {
      throw new IllegalArgumentException("it reads standard input, which is not known");
    }
    try {
      return Files.readAllBytes(folder.resolve(file));
    } catch (IOException | InvalidPathException unreadable) {
      throw new IllegalArgumentException("its file " + file + " cannot be read", unreadable);
    }
  }

  private static byte[] withoutBreaks(byte[] content) {
    ByteArrayOutputStream kept = new ByteArrayOutputStream();
    for (byte each : content) {
      if (each != '\r' && each != '\n') {
        kept.write(each);
      }
    }
    return kept.toByteArray();
  }

  private static byte[] bytes(String text) {
    return text.getBytes(StandardCharsets.UTF_8);
  }

  private List<ObjectNode> patterns() {
    if (urls.isEmpty()) {
      throw new IllegalArgumentException("the command has no URL");
    }
    return urls.stream().map(this::pattern).toList();
  }

  /** Returns the request line, and conditions on significant headers and on the body. */
  private ObjectNode pattern(String url) {
    List<String> parameters = new ArrayList<>(query);
    if (asGet && hasData) {
      parameters.add(data.toString(StandardCharsets.UTF_8));
    }
    String whole = uploadUrl(url);
    if (!parameters.isEmpty()) {
      whole += (whole.contains("?") ? "&" : "?") + String.join("&", parameters);
    }
    Uri uri = Uri.parse(whole.contains("://") ? whole : "http://" + whole);
    ObjectNode pattern =
        StubsOfExchanges.pattern(new Request(method(), uri, Headers.none(), Body.empty()));
    for (String header : headers) {
      int colon = header.indexOf(':');
      String name = header.substring(0, Math.max(0, colon)).strip().toLowerCase(Locale.ROOT);
      if (colon > 0 && !NOT_TELLING.contains(name)) {
        pattern.withObject("headers").put(name, header.substring(colon + 1).strip());
      }
    }
    if (!form.isEmpty()) {
      pattern.set("parts", form.condition());
    } else if (upload != null) {
      setBody(pattern, Body.of(read(folder, upload)));
    } else if (hasData && !asGet && data.size() > 0) {
      setBody(pattern, Body.of(data.toByteArray()));
    }
    return pattern;
  }

  private String method() {
    if (method != null) {
      return method;
    }
    if (head) {
      return "HEAD";
    }
    if (upload != null) {
      return "PUT";
    }
    return hasData && !asGet || !form.isEmpty() ? "POST" : "GET";
  }

  /** A file is uploaded to its own name in a folder. */
  private String uploadUrl(String url) {
    boolean isFolder = url.endsWith("/") || url.indexOf('/', url.indexOf("://") + 3) < 0;
    if (upload == null || !isFolder) {
      return url;
    }
    String name = upload.substring(Math.max(upload.lastIndexOf('/'), upload.lastIndexOf('\\')) + 1);
    return (url.endsWith("/") ? url : url + "/") + Percent.encodeForm(name).replace("+", "%20");
  }

  private void setBody(ObjectNode pattern, Body body) {
    String type =
        headers.stream()
            .filter(header -> header.toLowerCase(Locale.ROOT).startsWith("content-type:"))
            .map(header -> header.substring(header.indexOf(':') + 1).strip())
            .findFirst()
            .orElse(json ? "application/json" : upload == null ? FORM : "");
    Headers typed = Headers.none();
    if (!type.isEmpty()) {
      typed = typed.with("content-type", type);
    }
    Content content = Content.of(typed, body);
    // Many a command sends JSON without saying so.
    Content asJson = Content.of(Headers.none().with("content-type", "application/json"), body);
    boolean isJson = asJson.json().filter(it -> it.isContainerNode()).isPresent();
    pattern.set("body", BodyFormats.condition(isJson ? asJson : content));
  }
}
