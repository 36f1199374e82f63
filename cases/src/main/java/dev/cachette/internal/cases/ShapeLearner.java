// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cases;

import dev.cachette.cassette.Exchange;
import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.internal.body.BodyChange;
import dev.cachette.internal.body.BodyFormats;
import dev.cachette.internal.body.Ignored;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.scan.BodyType;
import dev.cachette.internal.scan.ValueFormats;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;

/**
 * Learns what varies in a case from the shapes of its values. A value that the application was
 * given does not vary, whatever its shape: from the incoming request, or from the response to an
 * outgoing call. So it is noticed if it is passed on wrongly.
 */
public final class ShapeLearner {

  /** Everything that the application was given until now. */
  private final StringBuilder given = new StringBuilder();

  /** Values that the application has generated, even if a service has returned them. */
  private final Set<String> made = new HashSet<>();

  private ShapeLearner() {}

  /** Returns a case with what varies in it. */
  public static Case learn(Case from) {
    ShapeLearner learner = new ShapeLearner();
    return new Case(from.name(), from.steps().stream().map(learner::learn).toList());
  }

  private Case.Step learn(Case.Step step) {
    step.incoming().ifPresent(it -> give(it.exchange().request()));
    List<CaseExchange> outgoing = new ArrayList<>();
    for (CaseExchange each : step.outgoing()) {
      outgoing.add(each.varying(places(each.exchange()), VaryingPlaces.NONE));
      each.exchange().response().ifPresent(this::give);
    }
    Optional<CaseExchange> incoming =
        step.incoming()
            .map(
                it ->
                    it.varying(
                        VaryingPlaces.NONE,
                        it.exchange()
                            .response()
                            .map(response -> places(response, it.exchange()))
                            .orElse(VaryingPlaces.NONE)));
    step.incoming().flatMap(it -> it.exchange().response()).ifPresent(this::give);
    return new Case.Step(incoming, outgoing);
  }

  private void give(Request request) {
    given.append('\n').append(request.uri()).append('\n').append(text(request.headers()));
    given.append('\n').append(request.text());
  }

  private void give(Response response) {
    given.append('\n').append(text(response.headers())).append('\n').append(response.text());
  }

  private static String text(Headers headers) {
    return headers.stream().map(Header::value).collect(Collectors.joining("\n"));
  }

  /** Returns what the application has generated in the request of an outgoing call. */
  private VaryingPlaces places(Exchange exchange) {
    Request request = exchange.request();
    UnaryOperator<String> marked = text -> marked(text, exchange.started());
    VaryingPlaces places = places(request.headers(), request.body(), marked);
    String path = request.uri().path();
    List<String> segments = List.of(path.split("/", -1));
    String template =
        segments.stream()
            .map(segment -> marked.apply(segment).equals(segment) ? segment : "{id}")
            .collect(Collectors.joining("/"));
    if (!template.equals(path)) {
      places = places.withPath(template);
    }
    for (String name : request.uri().query().names()) {
      for (String value : request.uri().query().all(name)) {
        places = marked.apply(value).equals(value) ? places : places.withQuery(name);
      }
    }
    return places;
  }

  private VaryingPlaces places(Response response, Exchange exchange) {
    return places(response.headers(), response.body(), text -> marked(text, exchange.started()));
  }

  private static VaryingPlaces places(Headers headers, Body body, UnaryOperator<String> marked) {
    VaryingPlaces places = VaryingPlaces.NONE;
    for (Header header : headers) {
      if (ComparedHeaders.isCompared(header.name())
          && !marked.apply(header.value()).equals(header.value())) {
        places = places.withHeader(header.name());
      }
    }
    Content content = Content.of(headers, body);
    String text = content.text();
    if (body.isEmpty() || marked.apply(text).equals(text)) {
      return places;
    }
    String changed =
        ValueFormats.change(
            headers.first("content-type").map(BodyType::of).orElse(BodyType.NONE),
            text,
            value -> marked.apply(value.text()));
    Headers plain = headers.with("content-encoding");
    List<BodyChange> changes =
        BodyFormats.changes(
            Content.of(plain, Body.of(text, headers.charset())),
            Content.of(plain, Body.of(changed, headers.charset())),
            Ignored.NOTHING);
    for (BodyChange change : changes) {
      boolean isPlace = !change.ignoring().equals(Ignored.NOTHING);
      places = isPlace ? places.with(change.ignoring()) : places.withWholeBody();
    }
    return places;
  }

  /** Returns the text with another value for each that the application was not given. */
  private String marked(String text, Instant now) {
    return Shapes.replace(text, now, value -> isGiven(value) ? value : other(value));
  }

  private boolean isGiven(String value) {
    boolean isGiven = given.indexOf(value) >= 0 && !made.contains(value);
    if (!isGiven) {
      made.add(value);
    }
    return isGiven;
  }

  /** Returns another value of the same type: a number stays one. */
  private static String other(String value) {
    char last = value.charAt(value.length() - 1);
    return value.substring(0, value.length() - 1) + (last == '7' ? '8' : '7');
  }
}
