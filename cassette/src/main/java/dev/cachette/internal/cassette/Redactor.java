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
import dev.cachette.internal.text.Placeholders;
import dev.cachette.internal.text.PlainName;
import dev.cachette.internal.uri.Percent;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.UnaryOperator;

/**
 * Redacts exchanges, and fills in the secrets that the user has named. A value that was found to be
 * secret is redacted everywhere from then on.
 */
public final class Redactor {

  private static final Optional<String> JSON = Optional.of("application/json");

  /** Shorter secrets are not searched for elsewhere. */
  private static final int SHORTEST_CERTAIN = 8;

  /** Nor are shorter values that may not be secret. */
  private static final int SHORTEST_LIKELY = 16;

  private final Redaction rules;
  private final KnownSecrets known;
  private final SecretFinder finder;
  private final PlaceholderValues named;
  private final LikelySecrets likely = new LikelySecrets();

  /** The claims of the tokens that were redacted, by the names of their placeholders. */
  private final Map<String, String> tokens = new HashMap<>();

  /** The tokens that were signed again, with the names of their placeholders. */
  private final Map<String, String> signed = new HashMap<>();

  /** Creates one that knows the secrets of these rules. */
  public Redactor(Redaction rules) {
    this.rules = rules;
    this.known = new KnownSecrets(rules.secrets());
    this.named = new PlaceholderValues(rules.secrets());
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
    other.tokens.putAll(tokens);
    return other;
  }

  /** Adds what another one has found. */
  void add(Redactor other) {
    known.learn(other.known);
    likely.add(other.likely);
    tokens.putAll(other.tokens);
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
    TokenClaims.of(value).ifPresent(claims -> tokens.put(name, claims));
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
    return fill(request, named);
  }

  private static Request fill(Request request, PlaceholderValues values) {
    return changed(request, values::fill, (name, value) -> values.fill(value), values::fill);
  }

  /**
   * Returns a request with tokens signed again, and with named secrets filled in.
   *
   * @param tokens the claims of its tokens, by the names of their placeholders
   */
  public Request fill(Request request, Map<String, String> tokens, TokenSigner signer) {
    return fill(request, values(tokens, signer, Map.of()));
  }

  /**
   * Returns the exchange with its response filled: with named secrets, and with more.
   *
   * @param more values of this run
   */
  Exchange fill(Exchange exchange, TokenSigner signer, Map<String, String> more) {
    PlaceholderValues values = values(exchange.tokens(), signer, more);
    if (values.values().isEmpty() || exchange.response().isEmpty()) {
      return exchange;
    }
    Response response = exchange.response().get();
    return exchange.with(changed(response, (name, value) -> values.fill(value), values::fill));
  }

  /** Returns values to fill in; those that the user has named count most. */
  private PlaceholderValues values(
      Map<String, String> claims, TokenSigner signer, Map<String, String> more) {
    Map<String, String> values = new HashMap<>(more);
    values.putAll(rules.secrets());
    Optional<String> nonce = Optional.ofNullable(values.get("nonce"));
    claims.forEach(
        (name, each) -> {
          if (!rules.secrets().containsKey(name)) {
            signer
                .sign(each, nonce)
                .ifPresent(
                    token -> {
                      values.put(name, token);
                      learnSigned(Map.of(token, name));
                    });
          }
        });
    return new PlaceholderValues(values);
  }

  /** Returns the tokens that were signed again, with the names of their placeholders. */
  public Map<String, String> signed() {
    return Map.copyOf(signed);
  }

  /** Adds tokens that others have signed, with the names of their placeholders. */
  public void learnSigned(Map<String, String> names) {
    names.forEach(
        (token, name) -> {
          signed.put(token, name);
          known.learn(name, token);
        });
  }

  private Exchange redactPlaces(int number, Exchange exchange) {
    likely.lookAt(() -> "exchange " + number + ", " + exchange.request() + ": ");
    Exchange marked = exchange.with(redactPlaces(exchange.request()));
    return withTokens(
        marked
            .response()
            .map(
                response ->
                    marked.with(
                        changed(
                            response,
                            (name, value) -> header("the response", name, redirect(name, value)),
                            text -> body("the response", response.headers(), text))))
            .orElse(marked));
  }

  /** Returns an exchange with the claims of the tokens whose placeholders it has. */
  private Exchange withTokens(Exchange exchange) {
    if (tokens.isEmpty()) {
      return exchange;
    }
    Map<String, String> found = new TreeMap<>(exchange.tokens());
    Set<String> names = Placeholder.names(exchange);
    names.retainAll(tokens.keySet());
    names.forEach(name -> found.put(name, known.redact(finder.body(JSON, tokens.get(name)))));
    return exchange.withTokens(found);
  }

  /** Values in a redirect are filled in their encoding, whichever they need. */
  private String redirect(String name, String value) {
    return name.equalsIgnoreCase("location")
        ? LoginParameters.inUrl(value, (it, raw) -> login(it, raw, Placeholder.Form.URL))
        : value;
  }

  private String login(String name, String raw, Placeholder.Form form) {
    if (rules.exceptions().contains(PlainName.of(name)) || raw.isEmpty()) {
      return raw;
    }
    String value = Percent.decodeForm(raw);
    String placeholder =
        Placeholders.is(value)
            ? value
            : placeholder(new Secret(name, value, Secret.Certainty.BY_USE));
    // Always the same form, whatever the value needed.
    return Placeholder.isOf(name, placeholder) ? Placeholder.of(name, form) : placeholder;
  }

  private Request redactPlaces(Request request) {
    return changed(
        request,
        url -> {
          likely.lookAt("the URL");
          return finder.url(LoginParameters.inUrl(url, this::login));
        },
        (name, value) -> header("the request", name, value),
        text ->
            body(
                "the request",
                request.headers(),
                LoginParameters.isForm(request)
                    ? LoginParameters.inPairs(text, this::login)
                    : text));
  }

  private String login(String name, String raw) {
    return login(name, raw, Placeholder.Form.PLAIN);
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
