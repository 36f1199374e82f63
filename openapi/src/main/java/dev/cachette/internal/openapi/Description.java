// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import dev.cachette.internal.text.NameSuggester;
import dev.cachette.internal.uri.Percent;
import dev.cachette.internal.yaml.Node;
import dev.cachette.internal.yaml.Trees;
import dev.cachette.result.Check;
import dev.cachette.result.Difference;
import dev.cachette.result.StubReference;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;

/**
 * An API description in OpenAPI 3.0 to 3.2: the requests that a service accepts, and its responses.
 * Safe to share between threads.
 */
public final class Description {

  private static final Set<String> METHODS =
      Set.of("get", "put", "post", "delete", "options", "head", "patch", "trace", "query");

  private static final Pattern VERSION =
      Pattern.compile("(?m)(^|[{,])\\s*[\"']?(openapi|swagger)[\"']?\\s*:\\s*[\"']?[0-9]");

  private static final int BAD_REQUEST = 400;
  private static final int UNPROCESSABLE = 422;

  private final Document document;
  private final Schemas schemas;
  private final Servers servers;
  private final List<Route> routes = new ArrayList<>();

  /** A path, from the root of the service, and its operations. */
  private record Route(DescribedPath path, Map<String, Operation> operations) {}

  /** The operation of a request, and the path variables. */
  private record Found(Operation operation, Map<String, String> variables) {}

  private Description(Document document) {
    this.document = document;
    Element root = document.root();
    String version = root.text("openapi").orElse("");
    if (!version.matches("3\\.[012](\\..*)?")) {
      throw root.malformed(
          root.json().has("swagger")
              ? "this is Swagger 2.0, which is not supported. Fix: convert it to OpenAPI 3."
              : "this is not an OpenAPI description of version 3.0, 3.1 or 3.2: openapi is "
                  + (version.isEmpty() ? "missing" : version)
                  + ".");
    }
    this.schemas = new Schemas(version.startsWith("3.0"));
    this.servers = Servers.of(root);
    root.get("paths").members().forEach((path, item) -> add(path, item, root));
    routes.sort(Comparator.comparingInt(route -> route.path().variables()));
  }

  /**
   * Parses an API description.
   *
   * @throws MalformedDescription if it is not one, or if a part cannot be used
   */
  public static Description read(DescriptionFile file) {
    return new Description(Document.read(file));
  }

  /** Returns true if text is an API description, rather than other YAML or JSON. */
  public static boolean isOne(String text) {
    boolean hasWord = text.contains("openapi") || text.contains("swagger");
    // The expression is slow on files of megabytes.
    if (!hasWord || !VERSION.matcher(text).find()) {
      return false;
    }
    Optional<Node> root = Trees.read(text, (line, column, path, message) -> {});
    List<Node.Member> members = root.map(Node::members).orElse(List.of());
    return members != null && members.stream().anyMatch(it -> it.name().matches("openapi|swagger"));
  }

  private void add(String path, Element item, Element root) {
    if (!path.startsWith("/")) {
      return;
    }
    Map<String, Operation> operations = new LinkedHashMap<>();
    item.json()
        .fieldNames()
        .forEachRemaining(
            name -> {
              if (METHODS.contains(name)) {
                Operation operation = Operation.read(name, path, item, item.get(name), root);
                operations.put(operation.method(), operation);
              }
            });
    item.get("additionalOperations")
        .members()
        .forEach((name, at) -> operations.put(name, Operation.read(name, path, item, at, root)));
    Servers own = item.get("servers").isThere() ? Servers.of(item) : servers;
    for (String base : own.basePaths()) {
      routes.add(new Route(new DescribedPath(base + path), operations));
    }
  }

  /** Returns its name in messages. */
  public String name() {
    return document.label();
  }

  /** Returns the files read so far, by their names. */
  public List<String> files() {
    return document.files();
  }

  /** Returns the origins of its servers. */
  public List<String> origins() {
    return servers.origins();
  }

  /** Returns the violations of a request; empty if there are none. */
  public List<Check> refusals(Request request) {
    Optional<Found> found = find(request);
    if (found.isPresent()) {
      return RequestCheck.of(schemas, found.get().operation(), found.get().variables(), request);
    }
    return unknown(request).stream().toList();
  }

  /** Returns why a request has no operation; empty if it has one, or is out of scope. */
  private Optional<Check> unknown(Request request) {
    return find(request).isPresent() || request.method().equals("OPTIONS")
        ? Optional.empty()
        : Optional.of(unknown(request.method(), request.uri().path(), routesTo(request.uri())));
  }

  /**
   * Returns how a stub violates the API description, by its request line and answers.
   *
   * @param method the method; a star for any
   * @param path the path, with the variables of the request line
   * @param query the query parameters that it requires
   * @param answers its answers, templates as written
   */
  public List<Check> misfits(
      String method, String path, Set<String> query, List<Response> answers) {
    List<Route> meant = routes.stream().filter(it -> it.path().mayMean(path)).toList();
    List<Operation> operations =
        meant.stream()
            .flatMap(route -> route.operations().values().stream())
            .filter(it -> method.equals("*") || it.method().equals(method))
            .toList();
    if (operations.isEmpty()) {
      return List.of(unknown(method, path, meant));
    }
    if (operations.size() > 1) {
      // The line could be for several operations.
      return List.of();
    }
    Operation operation = operations.get(0);
    List<Check> misfits = new ArrayList<>(RequestCheck.unknownParameters(operation, query));
    answers.forEach(it -> misfits.addAll(ResponseCheck.of(schemas, operation, it, true)));
    return misfits;
  }

  private Check unknown(String method, String path, List<Route> there) {
    Set<String> methods = new LinkedHashSet<>();
    there.forEach(route -> methods.addAll(route.operations().keySet()));
    if (!methods.isEmpty()) {
      return Check.missed("method", 0, Difference.of(String.join(" or ", methods), method));
    }
    List<String> paths = routes.stream().map(route -> route.path().toString()).distinct().toList();
    Optional<String> near = NameSuggester.closest(path, paths);
    return Check.missed(
        "path",
        0,
        Difference.of(listed(paths), path).because(near.map(it -> "did you mean \"" + it + "\"?")));
  }

  private static String listed(List<String> paths) {
    int shown = 8;
    String all = String.join(", ", paths.subList(0, Math.min(shown, paths.size())));
    return paths.isEmpty()
        ? "no paths at all"
        : all + (paths.size() > shown ? " and " + (paths.size() - shown) + " more" : "");
  }

  /**
   * Returns the violations of a response to a request; empty if there are none.
   *
   * @param withBody whether the body can be checked
   */
  public List<Check> impossible(Request request, Response response, boolean withBody) {
    boolean body = withBody && !request.method().equals("HEAD");
    return find(request)
        .map(found -> ResponseCheck.of(schemas, found.operation(), response, body))
        .orElse(List.of());
  }

  /**
   * Returns what a consumer needs of the response to a request that the API description does not
   * promise; empty if it promises everything, or has no operation for the request.
   */
  public List<Check> unpromised(Request request, NeededResponse needed) {
    return find(request).map(found -> PromiseCheck.of(found.operation(), needed)).orElse(List.of());
  }

  /**
   * Returns what no consumer uses: operations, responses and members of responses; each in words,
   * with its place.
   *
   * @param uses the requests of all consumers, each with the responses that it needs
   */
  public List<StubReference> unused(Map<Request, List<NeededResponse>> uses) {
    Map<Operation, List<NeededResponse>> byOperation = new LinkedHashMap<>();
    routes.stream()
        .flatMap(route -> route.operations().values().stream())
        .forEach(it -> byOperation.put(it, new ArrayList<>()));
    uses.forEach(
        (request, needed) ->
            find(request).ifPresent(found -> byOperation.get(found.operation()).addAll(needed)));
    return byOperation.entrySet().stream()
        .flatMap(it -> UnusedParts.of(it.getKey(), it.getValue()).stream())
        .toList();
  }

  /** Returns all operations, with their places in the API description. */
  public List<StubReference> operations() {
    return routes.stream()
        .flatMap(route -> route.operations().values().stream())
        .distinct()
        .map(Description::reference)
        .toList();
  }

  /** Returns the media types that each operation documents, by status: {@code 200}, {@code 4XX}. */
  public Map<StubReference, Map<String, List<String>>> documented() {
    Map<StubReference, Map<String, List<String>>> all = new LinkedHashMap<>();
    for (Route route : routes) {
      route.operations().values().forEach(it -> all.putIfAbsent(reference(it), it.documented()));
    }
    return all;
  }

  private static StubReference reference(Operation operation) {
    return new StubReference(operation.title(), operation.at().place().toString());
  }

  /**
   * Returns the operation of a request, and its place in the API description; empty if there is
   * none.
   */
  public Optional<StubReference> operation(Request request) {
    return find(request).map(Found::operation).map(Description::reference);
  }

  /**
   * Returns the status for a request that violates the API description: 400, or 422 if that is the
   * one that it lists.
   */
  public int statusOfRefusal(Request request) {
    Optional<Operation> operation = find(request).map(Found::operation);
    boolean only422 =
        operation.filter(it -> it.responses().get("400").isThere()).isEmpty()
            && operation.filter(it -> it.responses().get("422").isThere()).isPresent();
    return only422 ? UNPROCESSABLE : BAD_REQUEST;
  }

  /**
   * Returns the response to a request from the examples of its operation.
   *
   * @throws MalformedDescription if there is none
   */
  public Response example(Request request) {
    return ExampleResponses.of(schemas, find(request).orElseThrow().operation(), request);
  }

  /** Returns the parts that cannot be used, and the invalid examples; each with its place. */
  public List<MalformedDescription> problems() {
    DescriptionCheck check = new DescriptionCheck(schemas);
    servers.problems().forEach(check::note);
    routes.stream()
        .flatMap(route -> route.operations().values().stream())
        .distinct()
        .forEach(check::look);
    return check.problems();
  }

  private Optional<Found> find(Request request) {
    for (Route route : routesTo(request.uri())) {
      Operation operation = route.operations().get(request.method());
      if (operation == null && request.method().equals("HEAD")) {
        operation = route.operations().get("GET");
      }
      if (operation != null) {
        return Optional.of(new Found(operation, variables(route, request.uri()).orElseThrow()));
      }
    }
    return Optional.empty();
  }

  private List<Route> routesTo(Uri uri) {
    return routes.stream().filter(route -> variables(route, uri).isPresent()).toList();
  }

  private static Optional<Map<String, String>> variables(Route route, Uri uri) {
    return route.path().match(Percent.normalise(uri.path()));
  }

  /** Returns its name, and how much it describes. */
  @Override
  public String toString() {
    JsonNode title = document.root().json().path("info").path("title");
    return title.isTextual() ? name() + " (" + title.asText() + ")" : name();
  }
}
