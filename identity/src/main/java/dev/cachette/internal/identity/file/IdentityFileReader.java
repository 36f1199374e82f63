// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity.file;

import dev.cachette.identity.option.IdentityRule;
import dev.cachette.identity.option.SigningAlgorithm;
import dev.cachette.internal.fields.Fields;
import dev.cachette.internal.fields.Problems;
import dev.cachette.internal.identity.ClientRecord;
import dev.cachette.internal.identity.Issuer;
import dev.cachette.internal.identity.Lifetimes;
import dev.cachette.internal.identity.Provider;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.yaml.Node;
import dev.cachette.internal.yaml.Trees;
import dev.cachette.stubfile.StubFileException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.function.UnaryOperator;

/** Reads a file that declares an identity provider, with all problems together. */
public final class IdentityFileReader {

  private final Problems problems;

  private IdentityFileReader(String name) {
    this.problems = new Problems(name);
  }

  /** Returns true if a text is one: it has an issuer. */
  public static boolean isOne(String text) {
    return Trees.read(text, (line, column, path, message) -> {})
        .filter(Node::isMapping)
        .filter(it -> it.members().stream().anyMatch(each -> each.name().equals("issuer")))
        .isPresent();
  }

  /**
   * Returns the provider that a file declares.
   *
   * @param name its name, for problems
   * @throws StubFileException if it has problems
   */
  public static Provider read(String name, String text) {
    IdentityFileReader file = new IdentityFileReader(name);
    Optional<Provider> provider = Trees.read(text, file.problems::note).flatMap(file::provider);
    if (provider.isEmpty() && file.problems.all().isEmpty()) {
      file.problems.note(1, 1, "", "the file is empty. Fix: begin with issuer:");
    }
    if (!file.problems.all().isEmpty()) {
      throw new StubFileException(file.problems.all());
    }
    return provider.orElseThrow();
  }

  private Optional<Provider> provider(Node root) {
    Fields fields = Fields.of(root, "key of an identity file", IdentityKeys.ALL, problems);
    Optional<String> issuer =
        fields.get("issuer").flatMap(at -> problems.attempt(at, () -> Issuer.of(at.text())));
    if (root.isMapping() && fields.get("issuer").isEmpty()) {
      problems.add(root, "an identity provider needs its issuer. Fix: issuer: https://id.example");
    }
    // The other problems are reported even if the first one is there.
    Provider provider = new Provider(issuer.orElse("https://id.example"));
    fields.members("users").forEach(user -> addUser(user, provider));
    fields.members("clients").forEach(client -> addClient(client, provider));
    fields.get("lifetimes").ifPresent(at -> setLifetimes(at, provider));
    choice(fields, "signedWith", "algorithm", IdentityKeys.ALGORITHMS)
        .forEach(it -> provider.signWith(SigningAlgorithm.values()[it]));
    choice(fields, "allow", "rule", IdentityKeys.RULES)
        .forEach(it -> provider.allow(IdentityRule.values()[it]));
    if (fields.isSet("loginPage")) {
      provider.showPage();
    }
    return issuer.map(it -> provider);
  }

  /** Returns the places of the given words among the allowed ones. */
  private List<Integer> choice(Fields fields, String key, String what, List<String> allowed) {
    List<Integer> chosen = new ArrayList<>();
    for (Node each : fields.list(key)) {
      int at = allowed.indexOf(each.text());
      if (at >= 0) {
        chosen.add(at);
      } else {
        problems.unknown(each, each.text(), what, allowed);
      }
    }
    return chosen;
  }

  private void addUser(Node.Member user, Provider to) {
    if (user.name().isBlank()) {
      problems.add(user.key(), "a user needs a name.");
    }
    to.accounts().declare(user.name());
    if (isNothing(user.value())) {
      return;
    }
    for (Node.Member claim : Fields.any(user.value(), problems).members()) {
      if (isNothing(claim.value())) {
        problems.add(claim.value(), "the claim has no value. Fix: remove it, or give it one.");
      } else {
        Object value = Json.mapper().convertValue(claim.value().json(), Object.class);
        to.accounts().claim(user.name(), claim.name(), value);
      }
    }
  }

  private static boolean isNothing(Node node) {
    return node.scalar() != null && node.scalar().isNull();
  }

  private void addClient(Node.Member client, Provider to) {
    String id = client.name();
    if (id.isBlank()) {
      problems.add(client.key(), "a client needs an identifier.");
    }
    to.clients().declare(id);
    if (isNothing(client.value())) {
      return;
    }
    Fields fields = Fields.of(client.value(), "key of a client", IdentityKeys.CLIENT, problems);
    fields.text("secret").ifPresent(it -> to.clients().change(id, of -> of.withSecret(it)));
    fields
        .get("publicKeys")
        .ifPresent(at -> change(at, id, to, of -> of.withPublicKeys(Json.text(at.json()))));
    for (Node at : fields.list("redirectUris")) {
      change(at, id, to, of -> of.withRedirectUris(List.of(ClientRecord.uri(at.text()))));
    }
    List<String> scopes = fields.texts("scopes");
    to.clients().change(id, of -> of.withScopes(Set.copyOf(scopes)));
    List<String> audience = fields.texts("audience");
    to.clients().change(id, of -> of.withAudience(audience));
    fields
        .get("backChannelLogout")
        .ifPresent(
            at -> change(at, id, to, of -> of.withBackChannelLogout(ClientRecord.uri(at.text()))));
  }

  private void change(Node at, String id, Provider to, UnaryOperator<ClientRecord> change) {
    problems.attempt(
        at,
        () -> {
          to.clients().change(id, change);
          return true;
        });
  }

  private void setLifetimes(Node node, Provider to) {
    Fields fields = Fields.of(node, "lifetime", IdentityKeys.LIFETIMES, problems);
    set(fields, "code", to, Lifetimes::withCode);
    set(fields, "accessToken", to, Lifetimes::withAccessToken);
    set(fields, "idToken", to, Lifetimes::withIdToken);
    set(fields, "refreshToken", to, Lifetimes::withRefreshToken);
  }

  private void set(
      Fields fields, String key, Provider to, BiFunction<Lifetimes, Duration, Lifetimes> change) {
    fields
        .duration(key)
        .ifPresent(
            it ->
                problems.attempt(
                    fields.get(key).orElseThrow(),
                    () -> {
                      Duration checked = Lifetimes.checked("a lifetime", it);
                      to.change(of -> change.apply(of, checked));
                      return true;
                    }));
  }
}
