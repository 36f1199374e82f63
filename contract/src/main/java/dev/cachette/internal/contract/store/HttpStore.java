// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract.store;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.uri.Percent;
import dev.cachette.verification.StoreException;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * A store on an HTTP server that takes PUT and lists folders, as JSON or as a page with links. User
 * and password in the URL are sent as Basic authentication.
 */
final class HttpStore implements FileStore {

  private static final Duration LIMIT = Duration.ofSeconds(30);
  private static final Pattern LINK = Pattern.compile("(?i)<a\\s[^>]*href=[\"']([^\"'?#]+)[\"']");
  private static final int SUCCESS = 2;
  private static final int HUNDRED = 100;
  private static final int NOT_FOUND = 404;
  private static final int PRECONDITION_FAILED = 412;

  private final URI base;
  private final Optional<String> credentials;
  private final HttpClient http =
      HttpClient.newBuilder()
          .version(HttpClient.Version.HTTP_1_1)
          .connectTimeout(LIMIT)
          .followRedirects(HttpClient.Redirect.NORMAL)
          .build();

  HttpStore(String url) {
    URI given;
    try {
      given = URI.create(url.endsWith("/") ? url : url + "/");
    } catch (IllegalArgumentException malformed) {
      throw new StoreException("\"" + url + "\" is not a URL", malformed);
    }
    this.credentials =
        Optional.ofNullable(given.getUserInfo())
            .map(
                it ->
                    "Basic "
                        + Base64.getEncoder().encodeToString(it.getBytes(StandardCharsets.UTF_8)));
    this.base =
        given.getRawUserInfo() == null
            ? given
            : URI.create(given.toString().replace(given.getRawUserInfo() + "@", ""));
  }

  @Override
  public List<String> paths() {
    List<String> paths = new ArrayList<>();
    list("", paths);
    return paths.stream().sorted().toList();
  }

  private void list(String folder, List<String> into) {
    HttpResponse<String> response = send(request(folder).GET());
    if (response.statusCode() == NOT_FOUND) {
      return;
    }
    if (response.statusCode() / HUNDRED != SUCCESS) {
      throw new StoreException(
          String.format(
              "%s answered %d to GET. Fix: let the server list folders (nginx: autoindex on;"
                  + " autoindex_format json), and give user and password in the URL if it needs"
                  + " them.",
              base.resolve(folder), response.statusCode()));
    }
    for (String name : names(response)) {
      if (name.endsWith("/")) {
        list(folder + name, into);
      } else {
        into.add(folder + name);
      }
    }
  }

  /** Returns the names in a folder; those of folders end with a slash. */
  private static Set<String> names(HttpResponse<String> listing) {
    Set<String> names = new LinkedHashSet<>();
    String text = listing.body();
    if (text.stripLeading().startsWith("[")) {
      for (JsonNode entry : Json.tree(text)) {
        boolean isFolder = entry.path("type").asText().equals("directory");
        names.add(entry.path("name").asText() + (isFolder ? "/" : ""));
      }
    } else {
      Matcher link = LINK.matcher(text);
      while (link.find()) {
        names.add(Percent.decode(link.group(1)));
      }
    }
    // Links to other places, such as that to the parent.
    names.removeIf(it -> it.startsWith(".") || it.startsWith("/") || it.contains(":"));
    names.removeIf(it -> it.isEmpty() || it.indexOf('/') >= 0 && it.indexOf('/') < it.length() - 1);
    return names;
  }

  @Override
  public String read(String path) {
    HttpResponse<String> response = send(request(path).GET());
    if (response.statusCode() / HUNDRED != SUCCESS) {
      throw new StoreException(
          String.format("%s answered %d to GET", base.resolve(path), response.statusCode()));
    }
    return response.body();
  }

  @Override
  public void add(Map<String, String> files, String message) {
    files.forEach(this::add);
  }

  private void add(String path, String text) {
    HttpResponse<String> there = send(request(path).GET());
    if (there.statusCode() / HUNDRED == SUCCESS) {
      Facts.requireSame(path, there.body(), text);
      return;
    }
    HttpResponse<String> put =
        send(
            request(path)
                .header("content-type", "text/plain; charset=utf-8")
                .header("if-none-match", "*")
                .PUT(BodyPublishers.ofString(text)));
    if (put.statusCode() / HUNDRED != SUCCESS && put.statusCode() != PRECONDITION_FAILED) {
      throw new StoreException(
          String.format(
              "%s answered %d to PUT. Fix: let the server take PUT and create folders (nginx:"
                  + " dav_methods PUT; create_full_put_path on), and give user and password in the"
                  + " URL if it needs them.",
              base.resolve(encoded(path)), put.statusCode()));
    }
    // Servers may ignore the condition, and then the last one wins.
    Facts.requireSame(path, read(path), text);
  }

  private HttpRequest.Builder request(String path) {
    HttpRequest.Builder request =
        HttpRequest.newBuilder(base.resolve(encoded(path)))
            .timeout(LIMIT)
            .header("accept", "application/json, text/html, text/plain;q=0.5, */*;q=0.1");
    credentials.ifPresent(it -> request.header("authorization", it));
    return request;
  }

  private static String encoded(String path) {
    return Arrays.stream(path.split("/", -1))
        .map(Percent::encodeSegment)
        .collect(Collectors.joining("/"));
  }

  private HttpResponse<String> send(HttpRequest.Builder request) {
    try {
      return http.send(request.build(), BodyHandlers.ofString());
    } catch (IOException failed) {
      throw new StoreException(base + " cannot be reached: " + failed, failed);
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
      throw new StoreException("interrupted while calling " + base, stopped);
    }
  }

  @Override
  public String toString() {
    return base.toString();
  }
}
