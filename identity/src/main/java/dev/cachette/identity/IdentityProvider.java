// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity;

import dev.cachette.Cachette;
import dev.cachette.CachetteInternals;
import dev.cachette.calls.CallGroup;
import dev.cachette.calls.Calls;
import dev.cachette.http.Request;
import dev.cachette.identity.option.IdentityFault;
import dev.cachette.identity.option.IdentityRule;
import dev.cachette.identity.option.SigningAlgorithm;
import dev.cachette.internal.engine.RealServiceFailed;
import dev.cachette.internal.identity.IdentityService;
import dev.cachette.internal.identity.Issuer;
import dev.cachette.internal.identity.Lifetimes;
import dev.cachette.internal.identity.LogoutNotices;
import dev.cachette.internal.identity.Provider;
import dev.cachette.internal.identity.ReadyTokens;
import dev.cachette.internal.identity.TokenCheck;
import dev.cachette.internal.identity.User;
import dev.cachette.internal.identity.file.IdentityFileReader;
import dev.cachette.internal.misuse.Refusals;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import java.util.Set;

/**
 * A stand-in for an OpenID Connect and OAuth 2 provider, which signs users in without a network:
 *
 * <pre>{@code
 * @BeforeAll
 * static void identity(Cachette net) {
 *   id = IdentityProvider.open(net, "https://id.example");
 *   id.user("mara").claim("email", "mara@marrow-bay.example").claim("groups", List.of("pilots"));
 *   id.client("harbour-desk").secret("s3cret").redirectUris("https://desk.example/signed-in");
 * }
 * }</pre>
 *
 * <p>It has discovery (RFC 8414), keys (RFC 7517), the authorization code flow with PKCE (RFC
 * 7636), pushed requests (RFC 9126), refresh with rotation, client credentials, device codes (RFC
 * 8628), token exchange (RFC 8693), assertions (RFC 7523), proofs of possession (RFC 9449), user
 * info, introspection (RFC 7662), revocation (RFC 7009) and logout. Tokens are JWTs with real
 * signatures; times are those of {@link Cachette#clock()}.
 *
 * <p>By default the first declared user, or the one of {@link #signIn}, is signed in at once, so no
 * browser is needed. A client that breaks a rule of the standards gets the error that a provider
 * would send, and its test fails with the reason; see {@link IdentityRule}.
 *
 * <p>What is declared before the first test, such as in {@code @BeforeAll}, is there for each test.
 * What a test declares or plans, and the codes that it gets, end with it. A stub for one of the
 * URLs answers instead of the provider. Thread-safe.
 */
public final class IdentityProvider implements CallGroup {

  private final Cachette net;
  private final Provider provider;
  private final LogoutNotices notices;

  private IdentityProvider(Cachette net, Provider provider) {
    this.net = net;
    this.provider = provider;
    this.notices = new LogoutNotices(provider, this::send);
  }

  /**
   * Begins to answer for a provider, in the current scope.
   *
   * @param issuer its URL: {@code https://id.example}, {@code https://id.example/realms/harbour}
   * @throws IllegalArgumentException if it is not an http or https URL, or has a query
   * @throws IllegalStateException if the session is closed
   */
  public static IdentityProvider open(Cachette net, String issuer) {
    Refusals.given("open(net, issuer)", net);
    return open(net, new Provider(Issuer.of(Refusals.given("open(net, issuer)", issuer))));
  }

  /**
   * Begins to answer for the provider that a file declares; see {@link IdentityFile}.
   *
   * @throws dev.cachette.stubfile.StubFileException if the file has problems, with all of them
   * @throws java.io.UncheckedIOException if it cannot be read
   * @throws IllegalStateException if the session is closed
   */
  public static IdentityProvider load(Cachette net, Path file) {
    return load(net, IdentityFile.read(file));
  }

  /**
   * Begins to answer for the provider that a file declares.
   *
   * @throws IllegalStateException if the session is closed
   */
  public static IdentityProvider load(Cachette net, IdentityFile file) {
    Refusals.given("load(net, file)", net);
    Refusals.given("load(net, file)", file);
    return open(net, IdentityFileReader.read(file.name(), file.text()));
  }

  private static IdentityProvider open(Cachette net, Provider provider) {
    IdentityProvider opened = new IdentityProvider(net, provider);
    CachetteInternals.services(net).add(new IdentityService(provider, opened.notices));
    return opened;
  }

  private void send(Request request) {
    try {
      CachetteInternals.call(net, request);
    } catch (RealServiceFailed unreachable) {
      throw new IllegalStateException(
          "no client accepts logout tokens at " + request.uri() + ": " + unreachable.getMessage(),
          unreachable);
    }
  }

  /** Returns its URL, as in the {@code iss} of tokens. */
  public String issuer() {
    return provider.issuer();
  }

  /** Declares a user, or returns the one of this name. */
  public IdentityUser user(String name) {
    return new IdentityUser(requireName("user(name)", name), provider.accounts());
  }

  /**
   * Declares a client, or returns the one with this identifier. Others are refused from then on.
   */
  public IdentityClient client(String id) {
    return new IdentityClient(requireName("client(id)", id), provider.clients());
  }

  private static String requireName(String what, String name) {
    if (Refusals.given(what, name).isBlank()) {
      throw Refusals.argument(what + " needs a name, not \"" + name + "\".");
    }
    return name;
  }

  /**
   * Lets a user sign in from now on, in this test.
   *
   * @throws IllegalArgumentException if no such user is declared
   */
  public IdentityProvider signIn(String name) {
    requireUser("signIn(name)", name);
    provider.accounts().signIn(name);
    return this;
  }

  private User requireUser(String what, String name) {
    return provider
        .accounts()
        .named(Refusals.given(what, name))
        .orElseThrow(
            () ->
                Refusals.argument(
                    String.format(
                        "%s: no user \"%s\" is declared. Fix: call user(\"%s\").",
                        what, name, name)));
  }

  /**
   * Lets users choose on a page who they are, instead of signing them in at once. For a browser;
   * the provider remembers its user by a cookie.
   */
  public IdentityProvider withLoginPage() {
    provider.showPage();
    return this;
  }

  /** Sets the algorithm of signatures; {@link SigningAlgorithm#RS256} by default. */
  public IdentityProvider signedWith(SigningAlgorithm algorithm) {
    provider.signWith(Refusals.given("signedWith(algorithm)", algorithm));
    return this;
  }

  /** Signs with a new key from now on, in this test; the earlier ones are still published. */
  public IdentityProvider rotateKeys() {
    provider.rotateKeys();
    return this;
  }

  /** Sets how long access tokens are valid; 5 minutes by default. */
  public IdentityProvider accessTokensLast(Duration lifetime) {
    Duration checked = Lifetimes.checked("accessTokensLast(lifetime)", lifetime);
    provider.change(it -> it.withAccessToken(checked));
    return this;
  }

  /** Sets how long ID tokens are valid; 5 minutes by default. */
  public IdentityProvider idTokensLast(Duration lifetime) {
    Duration checked = Lifetimes.checked("idTokensLast(lifetime)", lifetime);
    provider.change(it -> it.withIdToken(checked));
    return this;
  }

  /** Sets how long refresh tokens are valid; a day by default. */
  public IdentityProvider refreshTokensLast(Duration lifetime) {
    Duration checked = Lifetimes.checked("refreshTokensLast(lifetime)", lifetime);
    provider.change(it -> it.withRefreshToken(checked));
    return this;
  }

  /** Sets how long authorization codes are valid; a minute by default. */
  public IdentityProvider codesLast(Duration lifetime) {
    Duration checked = Lifetimes.checked("codesLast(lifetime)", lifetime);
    provider.change(it -> it.withCode(checked));
    return this;
  }

  /**
   * Lets all access tokens that were issued so far count as expired, for stubs with {@link #token},
   * user info and introspection. Code that verifies tokens itself sees their {@code exp}: advance
   * {@link Cachette#clock()} for that, or plan {@link IdentityFault#EXPIRED}.
   */
  public IdentityProvider expireTokens() {
    provider.issued().expire();
    return this;
  }

  /** Plans faults, each for the next request that it can be the answer to, in this test. */
  public IdentityProvider next(IdentityFault... faults) {
    for (IdentityFault fault : Refusals.given("next(faults)", faults)) {
      provider.faults().once(Refusals.given("next(faults)", fault));
    }
    return this;
  }

  /** Plans a fault for every request that it can be the answer to, until the end of this test. */
  public IdentityProvider always(IdentityFault fault) {
    provider.faults().always(Refusals.given("always(fault)", fault));
    return this;
  }

  /**
   * Lets clients break rules: they still get the error that a provider would send, but their test
   * does not fail. {@link IdentityRule#PKCE} then also allows no challenge, and a plain one.
   */
  public IdentityProvider allow(IdentityRule... rules) {
    for (IdentityRule rule : Refusals.given("allow(rules)", rules)) {
      provider.allow(Refusals.given("allow(rules)", rule));
    }
    return this;
  }

  /** Returns the access tokens that a stub accepts: all valid ones, to be narrowed. */
  public AcceptedToken token() {
    return new AcceptedToken(
        new TokenCheck(provider, Set.of(), Set.of(), Map.of()), CachetteInternals.clock(net));
  }

  /**
   * Returns an access token for a user, without a flow; for the client that was declared first.
   *
   * @throws IllegalArgumentException if no such user is declared
   */
  public String accessToken(String user, String... scopes) {
    requireUser("accessToken(user, scopes)", user);
    return new ReadyTokens(provider, CachetteInternals.clock(net))
        .access(user, Set.of(Refusals.given("accessToken(user, scopes)", scopes)));
  }

  /**
   * Returns an ID token for a user and a client, without a flow.
   *
   * @throws IllegalArgumentException if no such user is declared
   */
  public String idToken(String user, String client) {
    requireUser("idToken(user, client)", user);
    return new ReadyTokens(provider, CachetteInternals.clock(net))
        .id(user, Refusals.given("idToken(user, client)", client));
  }

  /**
   * Signs a user out: clients with {@link IdentityClient#backChannelLogout} get a logout token.
   *
   * @throws IllegalArgumentException if no such user is declared
   * @throws IllegalStateException if a client cannot be reached
   */
  public IdentityProvider signOut(String user) {
    notices.send(requireUser("signOut(user)", user), CachetteInternals.clock(net).instant());
    return this;
  }

  /** Returns the calls of its URLs. */
  @Override
  public Calls calls() {
    return net.calls().matching("* " + provider.issuer() + "/{+rest}");
  }

  @Override
  public String toString() {
    return "identity provider " + provider.issuer();
  }
}
