// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.nimbusds.oauth2.sdk.pkce.CodeChallenge;
import com.nimbusds.oauth2.sdk.pkce.CodeChallengeMethod;
import com.nimbusds.oauth2.sdk.pkce.CodeVerifier;
import com.nimbusds.oauth2.sdk.util.URLUtils;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** A client that sends what a test says, right or wrong. */
final class TestClient {

  static final String ISSUER = "https://id.example";
  static final String REDIRECT = "https://desk.example/signed-in";

  private static final ObjectMapper JSON = new ObjectMapper();

  private final HttpClient http = HttpClient.newHttpClient();
  private final CodeVerifier verifier = new CodeVerifier();

  String verifier() {
    return verifier.getValue();
  }

  String challenge() {
    return CodeChallenge.compute(CodeChallengeMethod.S256, verifier).getValue();
  }

  /**
   * The parameters of a right authorization request, with changes: an empty value leaves one out.
   */
  Map<String, String> authorization(String... changes) {
    Map<String, String> parameters = new LinkedHashMap<>();
    parameters.put("response_type", "code");
    parameters.put("client_id", "harbour-desk");
    parameters.put("redirect_uri", REDIRECT);
    parameters.put("scope", "openid email");
    parameters.put("state", "st-1");
    parameters.put("nonce", "n-1");
    parameters.put("code_challenge", challenge());
    parameters.put("code_challenge_method", "S256");
    return changed(parameters, changes);
  }

  /** The parameters of a right token request for a code, with changes. */
  Map<String, String> redemption(String code, String... changes) {
    Map<String, String> parameters = new LinkedHashMap<>();
    parameters.put("grant_type", "authorization_code");
    parameters.put("code", code);
    parameters.put("redirect_uri", REDIRECT);
    parameters.put("client_id", "harbour-desk");
    parameters.put("client_secret", "s3cret-of-the-desk");
    parameters.put("code_verifier", verifier());
    return changed(parameters, changes);
  }

  static Map<String, String> changed(Map<String, String> parameters, String... changes) {
    for (int at = 0; at < changes.length; at += 2) {
      if (changes[at + 1].isEmpty()) {
        parameters.remove(changes[at]);
      } else {
        parameters.put(changes[at], changes[at + 1]);
      }
    }
    return parameters;
  }

  HttpResponse<String> get(String path, Map<String, String> parameters, String... headers)
      throws IOException, InterruptedException {
    String query = parameters.isEmpty() ? "" : "?" + form(parameters);
    HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(at(path) + query));
    if (headers.length > 0) {
      request.headers(headers);
    }
    return http.send(request.build(), BodyHandlers.ofString());
  }

  HttpResponse<String> post(String path, Map<String, String> parameters, String... headers)
      throws IOException, InterruptedException {
    HttpRequest.Builder request =
        HttpRequest.newBuilder(URI.create(at(path)))
            .header("content-type", "application/x-www-form-urlencoded")
            .POST(BodyPublishers.ofString(form(parameters)));
    if (headers.length > 0) {
      request.headers(headers);
    }
    return http.send(request.build(), BodyHandlers.ofString());
  }

  private static String at(String path) {
    return path.startsWith("http") ? path : ISSUER + path;
  }

  static String form(Map<String, String> parameters) {
    Map<String, List<String>> all = new LinkedHashMap<>();
    parameters.forEach((name, value) -> all.put(name, List.of(value)));
    return URLUtils.serializeParameters(all);
  }

  static JsonNode json(HttpResponse<String> response) throws IOException {
    return JSON.readTree(response.body());
  }

  /** The parameters that a redirect sends to the client. */
  static Map<String, String> redirected(HttpResponse<String> response) {
    String location = response.headers().firstValue("location").orElse("");
    String text = location.substring(Math.max(location.indexOf('?'), location.indexOf('#')) + 1);
    Map<String, String> parameters = new LinkedHashMap<>();
    URLUtils.parseParameters(text).forEach((name, values) -> parameters.put(name, values.get(0)));
    return parameters;
  }

  /** Signs in; returns the code. */
  String code(String... changes) throws IOException, InterruptedException {
    return redirected(get("/authorize", authorization(changes))).get("code");
  }

  /** Signs in; returns the token response. */
  JsonNode tokens(String... changes) throws IOException, InterruptedException {
    return json(post("/token", redemption(code(changes))));
  }

  /** The claims of a token, unchecked. */
  static JsonNode claims(String token) throws IOException {
    return JSON.readTree(java.util.Base64.getUrlDecoder().decode(token.split("\\.")[1]));
  }
}
