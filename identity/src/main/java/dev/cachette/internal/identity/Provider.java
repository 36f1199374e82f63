// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.identity;

import dev.cachette.identity.option.IdentityRule;
import dev.cachette.identity.option.SigningAlgorithm;
import java.util.EnumSet;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/** All that an identity provider knows. Thread-safe. */
public final class Provider {

  private final String issuer;
  private final SigningKeys keys;
  private final Accounts accounts = new Accounts();
  private final Clients clients = new Clients();
  private final PlannedFaults faults = new PlannedFaults();
  private final StoredGrants grants = new StoredGrants();
  private final IssuedTokens issued;
  private final TokenFactory tokens;
  private final Set<IdentityRule> allowed = EnumSet.noneOf(IdentityRule.class);
  private volatile Lifetimes lifetimes = Lifetimes.USUAL;
  private volatile boolean showsPage;
  private @Nullable Declared declared;

  /** The declarations for all tests. */
  private record Declared(
      Map<String, User> users,
      Map<String, ClientRecord> clients,
      Lifetimes lifetimes,
      boolean showsPage,
      Set<IdentityRule> allowed,
      SigningAlgorithm algorithm) {}

  /** Creates it for a URL. */
  public Provider(String issuer) {
    this.issuer = issuer;
    this.keys = new SigningKeys(issuer);
    this.issued = new IssuedTokens(issuer, keys);
    this.tokens = new TokenFactory(issuer, keys, accounts, issued, () -> lifetimes);
  }

  /** Returns its URL, which is in its tokens. */
  public String issuer() {
    return issuer;
  }

  SigningKeys keys() {
    return keys;
  }

  /** Returns its users. */
  public Accounts accounts() {
    return accounts;
  }

  /** Returns its clients. */
  public Clients clients() {
    return clients;
  }

  /** Returns the faults that are planned. */
  public PlannedFaults faults() {
    return faults;
  }

  StoredGrants grants() {
    return grants;
  }

  /** Returns what checks tokens. */
  public IssuedTokens issued() {
    return issued;
  }

  TokenFactory tokens() {
    return tokens;
  }

  /** Returns how long what it issues is valid. */
  Lifetimes lifetimes() {
    return lifetimes;
  }

  /** Changes how long what it issues is valid. */
  public synchronized void change(UnaryOperator<Lifetimes> change) {
    lifetimes = change.apply(lifetimes);
  }

  /** Returns true if users sign in on a page. */
  boolean showsPage() {
    return showsPage;
  }

  /** Lets users sign in on a page. */
  public void showPage() {
    showsPage = true;
  }

  /** Sets the algorithm of signatures. */
  public void signWith(SigningAlgorithm algorithm) {
    keys.use(algorithm);
  }

  /** Signs with a new key from now on. */
  public void rotateKeys() {
    keys.rotate();
  }

  /** Lets clients break a rule without a failure of the test. */
  public synchronized void allow(IdentityRule rule) {
    allowed.add(rule);
  }

  /** Returns true if clients may break a rule. */
  synchronized boolean allows(IdentityRule rule) {
    return allowed.contains(rule);
  }

  /** Begins with another test, with what was declared before the first one. */
  public synchronized void startAgain() {
    if (declared == null) {
      declared =
          new Declared(
              accounts.declared(),
              clients.declared(),
              lifetimes,
              showsPage,
              Set.copyOf(allowed),
              keys.used());
    }
    accounts.restore(declared.users());
    clients.restore(declared.clients());
    lifetimes = declared.lifetimes();
    showsPage = declared.showsPage();
    allowed.clear();
    allowed.addAll(declared.allowed());
    keys.startAgain();
    keys.use(declared.algorithm());
    faults.clear();
    grants.startAgain();
    issued.startAgain();
  }
}
