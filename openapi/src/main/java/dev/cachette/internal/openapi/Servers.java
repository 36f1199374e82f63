// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import dev.cachette.http.Uri;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The servers of an API description.
 *
 * @param origins their origins
 * @param basePaths the prefixes of all paths; an empty string for the root
 * @param problems why the others have no origin
 */
record Servers(List<String> origins, List<String> basePaths, List<MalformedDescription> problems) {

  private static final Pattern UNKNOWN = Pattern.compile("\\{[^{}]*}|\\s");

  static Servers of(Element from) {
    Set<String> origins = new LinkedHashSet<>();
    Set<String> paths = new LinkedHashSet<>();
    List<MalformedDescription> problems = new ArrayList<>();
    for (Element server : from.get("servers").elements()) {
      String url = withVariables(server);
      if (url.contains("://")) {
        Uri uri = absolute(url, server);
        Matcher unknown = UNKNOWN.matcher(uri.origin());
        if (unknown.find()) {
          problems.add(server.malformed(problem(unknown.group())));
        } else {
          origins.add(uri.origin());
        }
        paths.add(bare(uri.path()));
      } else {
        paths.add(bare(url));
      }
    }
    if (paths.isEmpty()) {
      paths.add("");
    }
    return new Servers(new ArrayList<>(origins), new ArrayList<>(paths), problems);
  }

  private static String problem(String unknown) {
    return unknown.isBlank()
        ? "the host of a server has no spaces."
        : "the variable "
            + unknown
            + " of the server is unknown. Fix: declare it under variables, with a default.";
  }

  private static Uri absolute(String url, Element server) {
    try {
      return Uri.parse(url);
    } catch (IllegalArgumentException malformed) {
      throw server.malformed(malformed.getMessage() + ".");
    }
  }

  private static String withVariables(Element server) {
    String url = server.text("url").orElse("/");
    for (var variable : server.get("variables").members().entrySet()) {
      url =
          url.replace(
              "{" + variable.getKey() + "}", variable.getValue().text("default").orElse(""));
    }
    return url;
  }

  private static String bare(String path) {
    String slashed = path.startsWith("/") || path.isEmpty() ? path : "/" + path;
    return slashed.endsWith("/") ? slashed.substring(0, slashed.length() - 1) : slashed;
  }
}
