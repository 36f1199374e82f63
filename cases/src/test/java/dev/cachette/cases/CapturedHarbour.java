// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cases;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;

/** The harbour desk with its services, captured and then without them. */
final class CapturedHarbour implements AutoCloseable {

  private final HttpClient client = HttpClient.newHttpClient();
  private final HarbourServices services = new HarbourServices();
  private final HarbourDesk desk;
  private final Path folder;

  CapturedHarbour(Path folder) throws IOException {
    this.folder = folder;
    this.desk = new HarbourDesk(services);
  }

  HarbourDesk desk() {
    return desk;
  }

  HarbourServices services() {
    return services;
  }

  /** A call of the desk. */
  interface Caller {
    void call(String url) throws IOException, InterruptedException;
  }

  /** Captures calls; returns what the listener was told last of each case. */
  List<CapturedCaseInfo> capture(UnaryOperator<CaptureSettings> how, Caller calls)
      throws IOException, InterruptedException {
    CaptureSettings settings = how.apply(CaptureSettings.of(folder, desk.url()));
    List<CapturedCaseInfo> cases = new ArrayList<>();
    try (Capture capture = Capture.open(settings, new CaptureListener() {})) {
      desk.callThrough(Optional.of(capture.proxy()));
      calls.call(capture.baseUrl());
      desk.callThrough(Optional.empty());
      capture.close();
      cases.addAll(capture.cases());
    }
    return cases;
  }

  /** Sends a request; a body makes it a POST of JSON. */
  HttpResponse<String> send(String url, String body, String... headers)
      throws IOException, InterruptedException {
    HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(url));
    if (!body.isEmpty()) {
      request.header("content-type", "application/json").POST(BodyPublishers.ofString(body));
    }
    if (headers.length > 0) {
      request.headers(headers);
    }
    return client.send(request.build(), BodyHandlers.ofString());
  }

  /** Prepares to replay against the desk. */
  CaseReplay replay() {
    return Cases.in(folder).against(desk.url());
  }

  @Override
  public void close() {
    desk.close();
    services.close();
  }
}
