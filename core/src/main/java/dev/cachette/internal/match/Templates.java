// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.match;

import dev.cachette.internal.match.TemplatePart.Kind;
import dev.cachette.internal.uri.Percent;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;

/** Parses the path and the query of a request line, with their variables (RFC 6570). */
final class Templates {

  private static final Pattern NAME = Pattern.compile("[A-Za-z0-9_.]+");
  private static final String OPERATORS = "#./;?&=,!@|";

  private final String line;
  private final MalformedRequestLine malformed;
  private final Set<String> variables = new LinkedHashSet<>();

  Templates(String line, MalformedRequestLine malformed) {
    this.line = line;
    this.malformed = malformed;
  }

  /** Returns the names of all variables read so far. */
  Set<String> variables() {
    return variables;
  }

  /** Parses a variable for a label of the host. */
  void hostVariable(int open, int close) {
    if (variable(open, close).kind() == Kind.REST) {
      throw malformed.at(open + 1, "in a host, a variable is one label.", "remove the plus sign.");
    }
  }

  PathTemplate path(int from, int to) {
    List<TemplatePart> parts = new ArrayList<>();
    for (int at = from; at < to; ) {
      int brace = nextBrace(at, to);
      if (brace > at) {
        String literal = Percent.normalise(line.substring(at, brace));
        parts.add(new TemplatePart(Kind.LITERAL, literal));
      }
      at = brace;
      if (at < to && line.charAt(at) == '}') {
        throw malformed.at(at, "closing brace without an opening one.", "write %7D for a brace.");
      }
      if (at < to) {
        int close = closingBrace(at, to);
        parts.add(variable(at, close));
        at = close + 1;
      }
    }
    if (parts.isEmpty()) {
      parts.add(new TemplatePart(Kind.LITERAL, "/"));
    }
    String text = from == to ? "/" : line.substring(from, to);
    return new PathTemplate(text, parts);
  }

  List<QueryParameter> query(int from) {
    List<QueryParameter> parameters = new ArrayList<>();
    int start = from;
    while (start <= line.length()) {
      int ampersand = line.indexOf('&', start);
      int end = ampersand < 0 ? line.length() : ampersand;
      if (end > start) {
        parameters.add(parameter(start, end));
      }
      start = end + 1;
    }
    return parameters;
  }

  private QueryParameter parameter(int from, int to) {
    int equals = line.indexOf('=', from);
    if (equals < 0 || equals >= to) {
      refuseBraces(from, to);
      String name = Percent.decodeForm(line.substring(from, to));
      return new QueryParameter(name, Optional.empty(), Optional.empty());
    }
    refuseBraces(from, equals);
    String name = Percent.decodeForm(line.substring(from, equals));
    String value = line.substring(equals + 1, to);
    if (value.startsWith("{")) {
      int close = closingBrace(equals + 1, to);
      if (close + 1 != to) {
        throw malformed.at(
            close + 1,
            "unexpected text after the variable of a parameter.",
            "use the variable alone.");
      }
      String variable = variable(equals + 1, close).text();
      return new QueryParameter(name, Optional.empty(), Optional.of(variable));
    }
    refuseBraces(equals + 1, to);
    return new QueryParameter(name, Optional.of(Percent.decodeForm(value)), Optional.empty());
  }

  private void refuseBraces(int from, int to) {
    for (int at = from; at < to; at++) {
      if (line.charAt(at) == '{' || line.charAt(at) == '}') {
        throw malformed.at(
            at,
            "in a query, a variable can only be the whole value of a parameter.",
            "write name={variable}.");
      }
    }
  }

  private int nextBrace(int from, int to) {
    int at = from;
    while (at < to && line.charAt(at) != '{' && line.charAt(at) != '}') {
      at++;
    }
    return at;
  }

  private int closingBrace(int open, int to) {
    for (int at = open + 1; at < to; at++) {
      char c = line.charAt(at);
      if (c == '}') {
        return at;
      }
      if (c == '{' || c == '/') {
        break;
      }
    }
    throw malformed.at(open, "missing closing brace of a variable.", "close it, as in {station}.");
  }

  private TemplatePart variable(int open, int close) {
    boolean rest = open + 1 < close && line.charAt(open + 1) == '+';
    String name = line.substring(open + (rest ? 2 : 1), close);
    if (name.isEmpty()) {
      throw malformed.at(open, "this variable has no name.", "name it, as in {station}.");
    }
    if (OPERATORS.indexOf(name.charAt(0)) >= 0) {
      throw malformed.at(
          open + 1,
          "of the operators of RFC 6570, only + is supported in request lines.",
          "write {name} for one segment, {+name} for everything; put parameters as ?name={name}.");
    }
    if (!NAME.matcher(name).matches()) {
      throw malformed.at(
          open + 1,
          "\"" + name + "\" is not a variable name.",
          "use letters, digits, underscores and dots.");
    }
    if (!variables.add(name)) {
      throw malformed.at(
          open, "the variable \"" + name + "\" occurs twice.", "give each its own name.");
    }
    return new TemplatePart(rest ? Kind.REST : Kind.VARIABLE, name);
  }
}
