// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import com.nimbusds.oauth2.sdk.ErrorObject;
import dev.cachette.http.Response;
import java.net.URI;
import java.util.List;
import java.util.Map;

/** The few pages of the provider, for users in browsers. */
final class Pages {

  /** The parameter with the user who was chosen. */
  static final String CHOSEN = "signed_in_as";

  /** Without the icon, a browser would call for one. */
  private static final String BEGIN =
      """
      <!DOCTYPE html>
      <html lang="en">
      <head>
      <meta charset="utf-8">
      <meta name="viewport" content="width=device-width">
      <link rel="icon" href="data:,">
      <title>%s</title>
      <style>
      body { font: 1rem/1.5 system-ui, sans-serif; margin: 4rem auto; max-width: 24rem;
        padding: 0 1rem; color: #1c2733; background: #f4f6f8 }
      main { background: #fff; border: 1px solid #c9d2da; border-radius: .5rem; padding: 1.5rem }
      h1 { font-size: 1.3rem; margin-top: 0 }
      button { display: block; width: 100%%; font: inherit; padding: .6rem; margin-top: .6rem;
        border: 1px solid #1d5c87; border-radius: .3rem; background: #1d5c87; color: #fff }
      button:focus-visible { outline: 3px solid #e0a100 }
      button.second { background: #fff; color: #1d5c87 }
      </style>
      </head>
      <body>
      <main>
      """;

  private Pages() {}

  /** Asks who signs in. */
  static Response login(IdentityCall call) {
    StringBuilder html = begin("Sign in");
    html.append("<p>")
        .append("Sign in to ")
        .append(escaped(call.parameter("client_id").orElse("the client")))
        .append(" as a user of ")
        .append(escaped(call.provider().issuer()))
        .append(":</p>\n");
    beginForm(html, call.request().uri().path());
    call.parameters().forEach((name, values) -> hidden(html, name, values));
    users(html, call, "");
    return page(200, html.append("</form>\n"));
  }

  /** Asks which device to allow; the code may be filled in already. */
  static Response device(IdentityCall call, String userCode) {
    StringBuilder html = begin("Allow a device");
    beginForm(html, call.request().uri().path());
    html.append("<p><label>Code <input name=\"user_code\" value=\"")
        .append(escaped(userCode))
        .append("\"></label></p>\n");
    users(html, call, "Allow as ");
    html.append("<button class=\"second\" name=\"deny\" value=\"yes\">Deny</button>\n");
    return page(200, html.append("</form>\n"));
  }

  /** Says something. */
  static Response message(int status, String title, String text) {
    return page(status, begin(title).append("<p>").append(escaped(text)).append("</p>\n"));
  }

  /** An error that must not be redirected. */
  static Response error(ErrorObject error) {
    return message(400, "Error: " + error.getCode(), String.valueOf(error.getDescription()));
  }

  /** A form that sends itself (OAuth 2.0 Form Post Response Mode). */
  static Response post(URI to, Map<String, String> members) {
    StringBuilder html = begin("Signing in");
    beginForm(html, to.toString());
    members.forEach((name, value) -> hidden(html, name, List.of(value)));
    html.append("<noscript><button>Continue</button></noscript>\n</form>\n");
    return page(200, html.append("<script>document.forms[0].submit()</script>\n"));
  }

  private static StringBuilder begin(String title) {
    return new StringBuilder(String.format(BEGIN, escaped(title)))
        .append("<h1>")
        .append(escaped(title))
        .append("</h1>\n");
  }

  private static Response page(int status, StringBuilder html) {
    return IdentityResponses.page(status, html.append("</main>\n</body></html>\n").toString());
  }

  private static void beginForm(StringBuilder html, String to) {
    html.append("<form method=\"post\" action=\"").append(escaped(to)).append("\">\n");
  }

  /** A button for each user. */
  private static void users(StringBuilder html, IdentityCall call, String before) {
    for (String user : call.provider().accounts().names()) {
      html.append("<button name=\"")
          .append(CHOSEN)
          .append("\" value=\"")
          .append(escaped(user))
          .append("\">")
          .append(before)
          .append(escaped(user))
          .append("</button>\n");
    }
  }

  private static void hidden(StringBuilder html, String name, List<String> values) {
    for (String value : values) {
      html.append("<input type=\"hidden\" name=\"")
          .append(escaped(name))
          .append("\" value=\"")
          .append(escaped(value))
          .append("\">\n");
    }
  }

  private static String escaped(String text) {
    return text.replace("&", "&amp;")
        .replace("<", "&lt;")
        .replace(">", "&gt;")
        .replace("\"", "&quot;")
        .replace("'", "&#39;");
  }
}
