// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import dev.cachette.cassette.Redaction;
import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.cassette.Redactor;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.text.Placeholders;
import dev.cachette.verification.GivenState;
import java.io.IOException;
import java.net.ConnectException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.net.http.HttpTimeoutException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Sends the requests of clauses to a running provider. Immutable. */
public final class ClauseCall {

  /** Headers that the client sets itself. */
  private static final Set<String> OF_CLIENT =
      Set.of("connection", "content-length", "expect", "host", "transfer-encoding", "upgrade");

  private static final Pattern PLACEHOLDER = Pattern.compile("\\{\\{([A-Za-z0-9_-]+)[^}]*\\}\\}");

  private final URI base;
  private final List<UnaryOperator<Request>> changes;
  private final Redaction secrets;
  private final Duration timeout;
  private final HttpClient http;

  private ClauseCall(Builder settings, URI base) {
    this.base = base;
    this.changes = List.copyOf(settings.changes);
    this.secrets = settings.secrets;
    this.timeout = settings.timeout;
    this.http =
        HttpClient.newBuilder()
            .followRedirects(HttpClient.Redirect.NEVER)
            .connectTimeout(timeout)
            .version(
                base.getScheme().equals("https")
                    ? HttpClient.Version.HTTP_2
                    : HttpClient.Version.HTTP_1_1)
            .build();
  }

  /** Collects what the calls need. For one thread. */
  public static final class Builder {

    private static final Duration DEFAULT_TIMEOUT = Duration.ofSeconds(30);

    private final List<UnaryOperator<Request>> changes = new ArrayList<>();
    private Redaction secrets = Redaction.byDefault();
    private Duration timeout = DEFAULT_TIMEOUT;
    private Optional<URI> base = Optional.empty();

    /** Sets the base URL of the provider. */
    public void against(String url) {
      base = Optional.of(BaseUrl.parse(url));
    }

    /** Adds a change of each request. */
    public void change(UnaryOperator<Request> change) {
      changes.add(change);
    }

    /** Adds a secret. */
    public void secret(String name, String value) {
      secrets = secrets.secret(name, value);
    }

    /** Sets the time limit. */
    public void timeout(Duration time) {
      if (time.isNegative() || time.isZero()) {
        throw Refusals.argument("timeout(time) needs a positive time, not " + time + ".");
      }
      timeout = time;
    }

    /**
     * Returns the calls.
     *
     * @throws IllegalStateException if the base URL is missing
     */
    public ClauseCall build() {
      return new ClauseCall(
          this,
          base.orElseThrow(
              () ->
                  Refusals.state(
                      "The URL of the provider is missing. Fix:"
                          + " against(\"http://localhost:8080\").")));
    }
  }

  /** Thrown if there is no response; the message says why. */
  static final class Failed extends Exception {

    private static final long serialVersionUID = 1;

    Failed(String message) {
      super(message, null, false, false);
    }
  }

  /** Returns the client, which also calls for states. */
  HttpClient http() {
    return http;
  }

  /** Returns a state with the secrets filled in its parameters. */
  GivenState filled(GivenState state) {
    return SecretStates.read(state, Redactor.filled(SecretStates.request(state), secrets));
  }

  /** Returns the request of a clause as it is sent. */
  Request request(Clause clause) throws Failed {
    Request filled = Redactor.filled(clause.example().request(), secrets);
    for (UnaryOperator<Request> change : changes) {
      filled = change.apply(filled);
      if (filled == null) {
        throw new Failed("A change of the request returned null.");
      }
    }
    requireFilled(filled);
    return filled;
  }

  private static void requireFilled(Request request) throws Failed {
    StringBuilder all =
        new StringBuilder(request.uri().toString()).append(' ').append(request.text());
    Optional<String> header = Optional.empty();
    for (Header each : request.headers()) {
      all.append(' ').append(each.value());
      if (Placeholders.isIn(each.value())) {
        header = Optional.of(each.name());
      }
    }
    Set<String> names = new TreeSet<>();
    Matcher placeholder = PLACEHOLDER.matcher(all);
    while (placeholder.find()) {
      names.add(placeholder.group(1));
    }
    if (!names.isEmpty()) {
      throw new Failed(
          String.format(
              "The request has a placeholder for a secret: {{%s}}%s.%nFix: %ssecret(\"%s\","
                  + " value); with the tool: %s--secret %s=VALUE.",
              String.join("}}, {{", names),
              header.map(it -> ", in the header " + it).orElse(""),
              header.map(it -> "header(\"" + it + "\", value), or ").orElse(""),
              names.iterator().next(),
              header.map(it -> "--header \"" + it + ": ...\", or ").orElse(""),
              names.iterator().next()));
    }
  }

  /** Sends a request, and returns the response. */
  Response send(Request request) throws Failed {
    URI url = url(request);
    HttpRequest.Builder builder =
        HttpRequest.newBuilder(url)
            .timeout(timeout)
            .method(
                request.method(),
                request.body().isEmpty()
                    ? BodyPublishers.noBody()
                    : BodyPublishers.ofByteArray(request.body().bytes()));
    for (Header header : request.headers()) {
      if (!OF_CLIENT.contains(header.name().toLowerCase(Locale.ROOT))) {
        builder.header(header.name(), header.value());
      }
    }
    try {
      HttpResponse<byte[]> response = http.send(builder.build(), BodyHandlers.ofByteArray());
      List<Header> headers = new ArrayList<>();
      response
          .headers()
          .map()
          .forEach(
              (name, values) -> {
                if (!name.startsWith(":")) {
                  values.forEach(value -> headers.add(new Header(name, value)));
                }
              });
      return new Response(
          response.statusCode(), Headers.of(headers), Body.of(response.body()), Headers.none());
    } catch (ConnectException refused) {
      throw new Failed(
          String.format(
              "%s cannot be reached: %s.%nFix: start the provider, or correct against(url) or"
                  + " --against.",
              base, refused.getMessage() == null ? "connection refused" : refused.getMessage()));
    } catch (HttpTimeoutException late) {
      throw new Failed(String.format("%s did not answer within %d ms.", url, timeout.toMillis()));
    } catch (IOException failed) {
      throw new Failed(String.format("%s gave no response: %s", url, failed));
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
      throw new Failed("interrupted");
    }
  }

  /** Returns the URL that a request is sent to. */
  URI url(Request request) {
    String start = base.toString();
    String target = request.uri().toString().substring(request.uri().origin().length());
    return URI.create(
        (start.endsWith("/") ? start.substring(0, start.length() - 1) : start)
            + (target.startsWith("/") ? target : "/" + target));
  }
}
