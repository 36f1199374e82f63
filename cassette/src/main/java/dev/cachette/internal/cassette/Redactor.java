// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Redaction;
import dev.cachette.http.Body;
import dev.cachette.http.Header;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.ContentEncoding;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.secret.Secret;
import dev.cachette.internal.secret.SecretFinder;
import dev.cachette.internal.secret.SecretPolicy;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import java.util.function.UnaryOperator;

/**
 * Redacts exchanges, and fills in the secrets that the user has named. A value that was found to be
 * secret is redacted everywhere from then on.
 */
public final class Redactor {

  /** Shorter secrets are not searched for elsewhere. */
  private static final int SHORTEST_CERTAIN = 8;

  /** Nor are shorter values that may not be secret. */
  private static final int SHORTEST_LIKELY = 16;

  private final Redaction rules;
  private final KnownSecrets known;
  private final SecretFinder finder;
  private final LikelySecrets likely = new LikelySecrets();

  /** Creates one that knows the secrets of these rules. */
  public Redactor(Redaction rules) {
    this.rules = rules;
    this.known = new KnownSecrets(rules.secrets());
    this.finder =
        new SecretFinder(
            new SecretPolicy(rules.names(), rules.exceptions(), rules.allowed()),
            this::placeholder);
    Masking.alsoHide(rules.names(), rules.secrets().values());
  }

  /** Returns another one with the same rules, which knows the same secrets. */
  Redactor another() {
    Redactor other = new Redactor(rules);
    other.known.learn(known);
    return other;
  }

  /** Adds what another one has found. */
  void add(Redactor other) {
    known.learn(other.known);
    likely.add(other.likely);
  }

  /** Returns exchanges as a recording would write them, by the default rules. */
  public static List<Exchange> redacted(List<Exchange> exchanges) {
    return new Redactor(Redaction.byDefault()).redactAll(exchanges);
  }

  /** Returns exchanges redacted by the default rules, and by what else is masked in this JVM. */
  public static List<Exchange> redactedAsMasked(List<Exchange> exchanges) {
    Redaction rules = Redaction.byDefault();
    if (!Masking.policy().more().isEmpty()) {
      rules = rules.alsoNamed(Masking.policy().more().toArray(String[]::new));
    }
    int number = 0;
    for (String value : new TreeSet<>(Masking.values())) {
      number++;
      rules = rules.secret("secret" + (number == 1 ? "" : number), value);
    }
    return new Redactor(rules).redactAll(exchanges);
  }

  /** Returns a request with the secrets of the rules filled in. */
  public static Request filled(Request request, Redaction rules) {
    return rules.secrets().isEmpty() ? request : new Redactor(rules).fill(request);
  }

  /** Returns the request with placeholders for secrets. */
  public Request redact(Request request) {
    // Named secrets get their own names first; then the places tell which other values are secret.
    likely.lookAway();
    return redactOnce(redactPlaces(redactOnce(request)));
  }

  /**
   * Redacts several exchanges, since each may reveal secrets of the others. If the rules are
   * strict, those in which something only looks like a secret are left out.
   */
  public List<Exchange> redactAll(List<Exchange> exchanges) {
    return redactAll(exchanges, 1);
  }

  /**
   * As {@link #redactAll(List)}.
   *
   * @param first the number of the first exchange
   */
  List<Exchange> redactAll(List<Exchange> exchanges, int first) {
    List<Exchange> marked = new ArrayList<>();
    int number = first - 1;
    int knownBefore = known.count();
    for (Exchange exchange : exchanges) {
      number++;
      int before = likely.count();
      Exchange redacted = redactPlaces(number, redactOnce(exchange));
      if (!rules.isStrict() || likely.count() == before) {
        marked.add(redacted);
      }
    }
    if (known.count() > knownBefore) {
      marked.replaceAll(this::redactOnce);
    }
    return marked;
  }

  /** Returns what was redacted because it looks like a secret, each with its place. */
  LikelySecrets likely() {
    return likely;
  }

  /**
   * Redacts again exchanges that were redacted before more secrets were known.
   *
   * @return true if that has changed one
   */
  boolean redactAgain(List<Exchange> exchanges) {
    boolean changed = false;
    for (int at = 0; at < exchanges.size(); at++) {
      Exchange before = exchanges.get(at);
      Exchange now = redactOnce(before);
      if (!now.equals(before)) {
        exchanges.set(at, now);
        changed = true;
      }
    }
    return changed;
  }

  /** Redacts one exchange, by what is known until now. */
  public Exchange redact(int number, Exchange exchange) {
    int before = known.count();
    Exchange marked = redactPlaces(number, redactOnce(exchange));
    return known.count() == before ? marked : redactOnce(marked);
  }

  /** Returns the number of values that are known to be secret. */
  int secrets() {
    return known.count();
  }

  boolean isStrict() {
    return rules.isStrict();
  }

  private String placeholder(Secret secret) {
    boolean certain = secret.certainty() == Secret.Certainty.CERTAIN;
    String value = secret.value();
    String name = Placeholder.name(secret.name());
    boolean isLong = value.length() >= (certain ? SHORTEST_CERTAIN : SHORTEST_LIKELY);
    if (isLong && (certain || Secret.isMixed(value))) {
      // Values are replaced everywhere, so common words are excluded.
      known.learn(name, value);
    }
    if (secret.certainty() == Secret.Certainty.LIKELY) {
      likely.add(value);
    }
    return Placeholder.of(name, Placeholder.Form.PLAIN);
  }

  /** Returns a redacted header. */
  String header(String name, String value) {
    return known.redact(finder.header(name, value));
  }

  /** Returns a redacted URL. */
  String url(String url) {
    return redacted(url, finder::url);
  }

  /** Returns any other text, redacted. */
  String text(String text) {
    return redacted(text, finder::text);
  }

  /** Returns the value of a field of a form, redacted. */
  String field(String name, String value) {
    return redacted(value, it -> finder.field(name, it));
  }

  /** Redacts a text once more if something was found, which may be in the rest of it, too. */
  private String redacted(String text, UnaryOperator<String> find) {
    String before = known.redact(text);
    String after = find.apply(before);
    return after.equals(before) ? after : known.redact(after);
  }

  /** Returns the request with named secrets filled in. */
  public Request fill(Request request) {
    return changed(request, known::fill, (name, value) -> known.fill(value), known::fill);
  }

  /** Returns the exchange with named secrets filled in its response. */
  Exchange fill(Exchange exchange) {
    if (rules.secrets().isEmpty() || exchange.response().isEmpty()) {
      return exchange;
    }
    Response response = exchange.response().get();
    return exchange.with(changed(response, (name, value) -> known.fill(value), known::fill));
  }

  private Exchange redactPlaces(int number, Exchange exchange) {
    likely.lookAt(() -> "exchange " + number + ", " + exchange.request() + ": ");
    Exchange marked = exchange.with(redactPlaces(exchange.request()));
    return marked
        .response()
        .map(
            response ->
                marked.with(
                    changed(
                        response,
                        (name, value) -> header("the response", name, value),
                        text -> body("the response", response.headers(), text))))
        .orElse(marked);
  }

  private Request redactPlaces(Request request) {
    return changed(
        request,
        url -> {
          likely.lookAt("the URL");
          return finder.url(url);
        },
        (name, value) -> header("the request", name, value),
        text -> body("the request", request.headers(), text));
  }

  private String header(String message, String name, String value) {
    likely.lookAt(name.isEmpty() ? message : message.concat(", header ").concat(name));
    return finder.header(name, value);
  }

  private String body(String message, Headers headers, String text) {
    likely.lookAt(message + ", body");
    return finder.body(headers.first("content-type"), text);
  }

  private Exchange redactOnce(Exchange exchange) {
    Exchange redacted = exchange.with(redactOnce(exchange.request()));
    return redacted
        .response()
        .map(
            response ->
                redacted.with(
                    changed(response, (name, value) -> known.redact(value), known::redact)))
        .orElse(redacted);
  }

  private Request redactOnce(Request request) {
    return known.isEmpty()
        ? request
        : changed(request, known::redact, (name, value) -> known.redact(value), known::redact);
  }

  private interface HeaderChange {
    String of(String name, String value);
  }

  private static Request changed(
      Request request, UnaryOperator<String> url, HeaderChange header, UnaryOperator<String> body) {
    return new Request(
        request.method(),
        Uri.parse(url.apply(request.uri().toString())),
        changed(request.headers(), header),
        changed(request.headers(), request.body(), body));
  }

  private static Response changed(
      Response response, HeaderChange header, UnaryOperator<String> body) {
    return new Response(
        response.status(),
        changed(response.headers(), header),
        changed(response.headers(), response.body(), body),
        changed(response.trailers(), header));
  }

  private static Headers changed(Headers headers, HeaderChange change) {
    return Headers.of(
        headers.stream()
            .map(it -> new Header(it.name(), change.of(it.name(), it.value())))
            .toList());
  }

  /** Returns a body with its decoded text changed. */
  private static Body changed(Headers headers, Body body, UnaryOperator<String> change) {
    if (body.isEmpty()) {
      return body;
    }
    Content content = Content.of(headers, body);
    byte[] plain = content.bytes();
    byte[] changed = changed(plain, headers.charset(), change);
    if (Arrays.equals(plain, changed)) {
      return body;
    }
    byte[] coded = changed;
    for (String name : ContentEncoding.namesIn(headers.all("content-encoding"))) {
      Optional<ContentEncoding> encoding = ContentEncoding.named(name);
      coded = encoding.isPresent() ? encoding.get().encode(coded) : coded;
    }
    return Body.of(coded);
  }

  private static byte[] changed(byte[] plain, Charset charset, UnaryOperator<String> change) {
    if (isGzip(plain)) {
      try {
        byte[] within = ContentEncoding.GZIP.decode(plain);
        byte[] changed = changed(within, charset, change);
        return Arrays.equals(within, changed) ? plain : ContentEncoding.GZIP.encode(changed);
      } catch (IOException noGzip) {
        return plain;
      }
    }
    Optional<String> text = text(plain, charset);
    if (text.isPresent()) {
      return change.apply(text.get()).getBytes(charset);
    }
    // Binary content is searched byte by byte.
    String bytes = new String(plain, StandardCharsets.ISO_8859_1);
    return change.apply(bytes).getBytes(StandardCharsets.ISO_8859_1);
  }

  /** Returns bytes as text, if they are. Most binary content is malformed at its beginning. */
  private static Optional<String> text(byte[] bytes, Charset charset) {
    try {
      String text = charset.newDecoder().decode(ByteBuffer.wrap(bytes)).toString();
      return Optional.of(text).filter(it -> Arrays.equals(it.getBytes(charset), bytes));
    } catch (CharacterCodingException binary) {
      return Optional.empty();
    }
  }

  private static boolean isGzip(byte[] bytes) {
    return bytes.length > 2 && bytes[0] == 0x1f && bytes[1] == (byte) 0x8b;
  }
}
