package dev.cachette.internal.cassette;

import dev.cachette.cassette.Matching;
import dev.cachette.cassette.Matching.Part;
import dev.cachette.http.Headers;
import dev.cachette.http.MediaType;
import dev.cachette.http.Query;
import dev.cachette.http.Request;
import dev.cachette.http.Uri;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.Multipart;
import dev.cachette.internal.content.Parameters;
import dev.cachette.internal.uri.Percent;
import dev.cachette.internal.uri.VaryingPath;
import dev.cachette.internal.xml.Xml;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import java.util.stream.Collectors;

/**
 * A key that requests share if they match the same recorded exchange. Safe to share between
 * threads.
 */
final class Fingerprint {

  private final Matching matching;

  Fingerprint(Matching matching) {
    this.matching = matching;
  }

  /** Returns the key of method and URL. */
  String ofLine(String method, Uri uri) {
    StringBuilder key = new StringBuilder();
    if (matching.isOn(Part.METHOD)) {
      key.append(method);
    }
    key.append(' ');
    if (matching.isOn(Part.ORIGIN)) {
      key.append(uri.origin());
    }
    if (matching.isOn(Part.PATH)) {
      key.append(
          VaryingPath.of(
              Percent.normalise(Percent.encodeIllegal(uri.path())), matching.varyingPaths()));
    }
    if (matching.isOn(Part.QUERY) && uri.rawQuery().isPresent()) {
      String sorted = query(uri.rawQuery().get(), uri);
      if (!sorted.isEmpty()) {
        key.append('?').append(sorted);
      }
    }
    return key.toString();
  }

  /** A single parameter needs no sorting, and most have no escapes. */
  private String query(String raw, Uri uri) {
    int equals = raw.indexOf('=');
    boolean whole =
        equals > 0
            && isPlain(raw, equals)
            && (matching.ignoredQuery().isEmpty()
                || !matching.ignoredQuery().contains(raw.substring(0, equals)));
    return whole ? raw + "&" : fields(uri.query(), matching.ignoredQuery());
  }

  /** Returns true if there is one parameter, of letters, digits and hyphens. */
  private static boolean isPlain(String raw, int equals) {
    for (int at = 0; at < raw.length(); at++) {
      char c = raw.charAt(at);
      boolean letterOrDigit = c < 0x80 && Character.isLetterOrDigit(c);
      if (!letterOrDigit && c != '-' && at != equals) {
        return false;
      }
    }
    return true;
  }

  /** Returns the key of the compared headers and the body, unless the user compares bodies. */
  String ofRest(Request request) {
    String headers =
        matching.headers().stream()
            .map(name -> name + "=" + request.headers().all(name))
            .collect(Collectors.joining("\n"));
    boolean body = matching.isOn(Part.BODY) && matching.comparison().isEmpty();
    return body && !request.body().isEmpty()
        ? headers + "\n" + Digests.of(ofBody(Content.of(request.headers(), request.body())))
        : headers;
  }

  private String ofBody(Content content) {
    Optional<MediaType> type = content.mediaType();
    String subtype = type.map(MediaType::subtype).orElse("");
    if (type.isEmpty() || type.get().isJson()) {
      Optional<String> json =
          content.json().map(tree -> "json " + CanonicalJson.of(tree, matching.ignoredJson()));
      if (json.isPresent()) {
        return json.get();
      }
    }
    if (subtype.equals("xml") || subtype.endsWith("+xml")) {
      return xml(content);
    }
    if (subtype.equals("x-www-form-urlencoded")) {
      return "form " + fields(Query.read(content.text()), matching.ignoredFields());
    }
    if (type.filter(it -> it.type().equals("multipart")).isPresent()) {
      return multipart(content);
    }
    return type.filter(MediaType::isText).isPresent()
        ? "text " + content.text().replace("\r\n", "\n")
        : bytes(content.bytes());
  }

  private String xml(Content content) {
    try {
      return "xml " + CanonicalXml.of(Xml.parse(content.bytes()), matching.ignoredXml());
    } catch (Xml.MalformedXml asText) {
      return "text " + content.text();
    }
  }

  /** Returns each part by name, type and content; the boundary differs in every request. */
  private String multipart(Content content) {
    Optional<String> boundary =
        content.headers().first("content-type").flatMap(it -> Parameters.of(it).named("boundary"));
    try {
      return Multipart.parts(content.bytes(), boundary.orElse("")).stream()
          .filter(part -> part.name().filter(matching.ignoredFields()::contains).isEmpty())
          .map(
              part ->
                  part.name().orElse("")
                      + part.fileName().map(name -> " " + name).orElse("")
                      + ": "
                      + ofBody(Content.of(partHeaders(part.headers()), part.body())))
          .collect(Collectors.joining("\n", "multipart ", ""));
    } catch (IllegalArgumentException malformed) {
      return bytes(content.bytes());
    }
  }

  /** Returns true for text: a part of a form without a type is text (RFC 7578 section 4.4). */
  private static Headers partHeaders(Headers headers) {
    return headers.has("content-type") ? headers : headers.with("content-type", "text/plain");
  }

  private static String fields(Query query, List<String> ignored) {
    StringBuilder sorted = new StringBuilder();
    for (String name : new TreeSet<>(query.names())) {
      if (!ignored.contains(name)) {
        for (String value : query.all(name)) {
          sorted.append(Percent.encodeForm(name)).append('=');
          sorted.append(Percent.encodeForm(value)).append('&');
        }
      }
    }
    return sorted.toString();
  }

  private static String bytes(byte[] bytes) {
    return "bytes " + new String(bytes, StandardCharsets.ISO_8859_1);
  }
}
