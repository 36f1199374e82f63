// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.match;

import dev.cachette.http.Uri;
import dev.cachette.internal.misuse.Refusals;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;

/** Parses {@code METHOD URL-template}. */
public final class RequestLineParser {

  private static final Pattern TOKEN = Pattern.compile("[A-Za-z0-9!#$%&'*+.^_`|~-]+");

  private static final Pattern IPV6 = Pattern.compile("\\[[0-9a-fA-F:.]+]");

  private static final String EXAMPLE = "\"GET https://tides.example/v1/stations/{station}/tides\"";
  private static final Set<String> STANDARD_METHODS =
      Set.of("GET", "HEAD", "POST", "PUT", "DELETE", "CONNECT", "OPTIONS", "TRACE", "PATCH");

  private final String line;
  private final MalformedRequestLine malformed;

  private RequestLineParser(String line) {
    this.line = line;
    this.malformed = new MalformedRequestLine(line);
  }

  /**
   * Parses a line.
   *
   * @throws IllegalArgumentException if it is malformed
   */
  public static RequestLine parse(String line) {
    if (line == null) {
      throw Refusals.argument(
          "The request line must not be null. Fix: write one, such as " + EXAMPLE + ".");
    }
    if (line.isBlank()) {
      throw Refusals.argument(
          "The request line must not be blank. Fix: write one, such as " + EXAMPLE + ".");
    }
    return new RequestLineParser(line).read();
  }

  private RequestLine read() {
    int space = line.indexOf(' ');
    Methods methods = methods(space);
    int url = space + 1;
    refuseStrayCharacters(url);
    Templates templates = new Templates(line, malformed);
    boolean anyOrigin = line.charAt(url) == '/';
    int path = anyOrigin ? url : pathStart(url);
    Optional<Origin> origin =
        anyOrigin ? Optional.empty() : Optional.of(origin(url, path, templates));
    int question = questionAfter(path);
    PathTemplate pathTemplate = templates.path(path, question < 0 ? line.length() : question);
    List<QueryParameter> parameters =
        question < 0 ? new ArrayList<>() : templates.query(question + 1);
    return new RequestLine(line, methods, origin, pathTemplate, parameters, templates.variables());
  }

  /** Parses one method, several with commas in between, or a star for any. */
  private Methods methods(int space) {
    if (space <= 0) {
      boolean onlyMethod = STANDARD_METHODS.contains(line.toUpperCase(Locale.ROOT));
      throw malformed.at(
          onlyMethod ? line.length() : 0,
          onlyMethod ? "missing URL." : "missing method, followed by one space.",
          "write both, as in " + EXAMPLE + ".");
    }
    String written = line.substring(0, space);
    if (STANDARD_METHODS.contains(written)) {
      return new Methods(Set.of(written));
    }
    Set<String> names = new LinkedHashSet<>();
    int at = 0;
    for (String method : written.equals("*") ? new String[0] : written.split(",", -1)) {
      names.add(method(method, at));
      at += method.length() + 1;
    }
    return new Methods(names);
  }

  private String method(String method, int at) {
    String upper = method.toUpperCase(Locale.ROOT);
    if (!method.equals(upper) && STANDARD_METHODS.contains(upper)) {
      throw malformed.at(
          at, "methods are case-sensitive (RFC 9110).", "write " + upper + " in upper case.");
    }
    if (method.isEmpty() && at > 0) {
      throw malformed.at(
          at, "missing method after the comma.", "write GET,POST with no space between.");
    }
    if (!TOKEN.matcher(method).matches()) {
      throw malformed.at(
          at,
          "\"" + method + "\" is not a method.",
          "begin with a method and one space, as in " + EXAMPLE + "; * means any method.");
    }
    return method;
  }

  private void refuseStrayCharacters(int from) {
    if (from >= line.length()) {
      throw malformed.at(from, "missing URL.", "write one, as in " + EXAMPLE + ".");
    }
    for (int at = from; at < line.length(); at++) {
      char c = line.charAt(at);
      if (c > ' ' && c < 0x7f && c != '#') {
        continue;
      }
      if (Character.isWhitespace(c) || Character.isISOControl(c)) {
        throw malformed.at(at, "white space in the URL.", "remove it, or write %20 for a space.");
      }
      if (c == '#') {
        throw malformed.at(at, "a fragment is never sent to a server.", "remove it.");
      }
    }
  }

  private Origin origin(int url, int path, Templates templates) {
    int colon = line.indexOf("://", url);
    String scheme = colon < 0 ? "" : line.substring(url, colon).toLowerCase(Locale.ROOT);
    if (colon < 0) {
      throw malformed.at(
          url,
          "the URL has neither a scheme nor a leading slash.",
          "write https://" + line.substring(url) + ", or /path for any host.");
    }
    if (!scheme.equals("http") && !scheme.equals("https")) {
      throw malformed.at(
          url, "the scheme \"" + scheme + "\" is not intercepted.", "write http:// or https://.");
    }
    int hostAt = colon + 3;
    String authority = line.substring(hostAt, path);
    if (authority.indexOf('@') >= 0) {
      throw malformed.at(
          hostAt, "user information is never sent in a URL.", "remove everything up to the @.");
    }
    int portColon = authority.indexOf(':', authority.lastIndexOf(']') + 1);
    String host = portColon < 0 ? authority : authority.substring(0, portColon);
    int port =
        portColon < 0
            ? Uri.defaultPort(scheme)
            : port(authority.substring(portColon + 1), hostAt + portColon + 1);
    return new Origin(scheme, host(host, hostAt, templates), port);
  }

  private HostTemplate host(String host, int at, Templates templates) {
    if (host.isEmpty()) {
      throw malformed.at(at, "missing host.", "name one, or begin with a slash to mean any host.");
    }
    int label = at;
    boolean isIpv6 = host.startsWith("[") && IPV6.matcher(host).matches();
    for (String text : isIpv6 ? new String[0] : host.split("\\.", -1)) {
      if (text.startsWith("{") && text.endsWith("}")) {
        templates.hostVariable(label, label + text.length() - 1);
      } else if (!text.equals("*") && !isLabel(text)) {
        throw malformed.at(
            label,
            "\"" + text + "\" is not a label of a host name, and not an IP address.",
            "write the host as the code under test calls it, such as tides.example; "
                + "* or {name} stands for one whole label.");
      }
      label += text.length() + 1;
    }
    return new HostTemplate(host);
  }

  private static boolean isLabel(String text) {
    for (int at = 0; at < text.length(); at++) {
      char c = text.charAt(at);
      if (!Character.isLetterOrDigit(c) && c != '-' && c != '_') {
        return false;
      }
    }
    return true;
  }

  private int port(String text, int at) {
    if (text.matches("[0-9]{1,5}")) {
      int port = Integer.parseInt(text);
      if (port > 0 && port < 65536) {
        return port;
      }
    }
    throw malformed.at(
        at, "\"" + text + "\" is not a port.", "write a number from 1 to 65535, or remove it.");
  }

  /** Returns where the path begins: after the authority, or at the end. */
  private int pathStart(int url) {
    int hostAt = line.indexOf("://", url) + 3;
    for (int at = hostAt; at < line.length(); at++) {
      if (line.charAt(at) == '/' || line.charAt(at) == '?') {
        return at;
      }
    }
    return line.length();
  }

  private int questionAfter(int path) {
    int depth = 0;
    for (int at = path; at < line.length(); at++) {
      char c = line.charAt(at);
      depth += c == '{' ? 1 : c == '}' ? -1 : 0;
      if (c == '?' && depth == 0) {
        return at;
      }
    }
    return -1;
  }
}
