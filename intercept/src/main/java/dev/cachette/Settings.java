// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.calls.Call;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.http.Uri;
import dev.cachette.internal.json.Json;
import dev.cachette.internal.misuse.Refusals;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Consumer;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * The settings of a {@link Cachette}. Immutable: every method with an argument returns new
 * settings, beginning with {@link #defaults()}; the method of the same name without an argument
 * returns the value.
 *
 * <p>What is not set in code can be set by properties, see {@link #withProperties}: by system
 * properties, and in JUnit by {@code junit-platform.properties}.
 */
public final class Settings {

  private static final Path CONTRACTS = Path.of("target", "contracts");
  static final Path CASSETTES = Path.of("src", "test", "cassettes");
  static final Path STUBS = Path.of("src", "test", "stubs");
  static final int MEBIBYTE = 1024 * 1024;

  private static final Settings DEFAULTS = new Settings(Map.of());
  private static final Consumer<Call> NO_LISTENER = call -> {};

  /** The values that were set, by the name of the setting. */
  private final Map<String, Object> values;

  private Settings(Map<String, Object> values) {
    this.values = values;
  }

  /** Returns the defaults, which are described at each setting. */
  public static Settings defaults() {
    return DEFAULTS;
  }

  /** Sets what happens to calls without a stub; {@link UnexpectedCalls#FAIL} by default. */
  public Settings unexpectedCalls(UnexpectedCalls choice) {
    return with("unexpectedCalls", choice);
  }

  /** Returns what happens to calls without a stub. */
  public UnexpectedCalls unexpectedCalls() {
    return get("unexpectedCalls", UnexpectedCalls.FAIL);
  }

  /** Sets what happens about stubs that no call used; {@link UnusedStubs#WARN} by default. */
  public Settings unusedStubs(UnusedStubs choice) {
    return with("unusedStubs", choice);
  }

  /** Returns what happens about stubs that no call used. */
  public UnusedStubs unusedStubs() {
    return get("unusedStubs", UnusedStubs.WARN);
  }

  /**
   * Sets the maximum size of a request body in memory, in bytes; 64 MiB by default. A larger body,
   * or one that is larger when it is decoded from its content encoding, is answered with 413 (RFC
   * 9110) and an explanation, and fails the test.
   *
   * @throws IllegalArgumentException if the number is not positive
   */
  public Settings maxRequestBody(int bytes) {
    return with("maxRequestBody", Required.positive("maxRequestBody", bytes));
  }

  /** Returns the maximum size of a request body in memory, in bytes. */
  public int maxRequestBody() {
    return get("maxRequestBody", 64 * MEBIBYTE);
  }

  /**
   * Sets the number of calls that the log of a test holds; 100,000 by default. If there are more,
   * the oldest are dropped, and assertions that could be wrong because of that fail and say so.
   *
   * @throws IllegalArgumentException if the number is not positive
   */
  public Settings maxCalls(int calls) {
    return with("maxCalls", Required.positive("maxCalls", calls));
  }

  /** Returns the number of calls that the log of a test holds. */
  public int maxCalls() {
    return get("maxCalls", 100_000);
  }

  /**
   * Sets the total size of request and response bodies that the log of a test holds, in bytes; 256
   * MiB by default. If there are more, the oldest calls are dropped, but never the last one.
   *
   * @throws IllegalArgumentException if the number is not positive
   */
  public Settings maxCallBodies(long bytes) {
    return with("maxCallBodies", Required.positive("maxCallBodies", bytes));
  }

  /** Returns the total size of bodies that the log of a test holds, in bytes. */
  public long maxCallBodies() {
    return get("maxCallBodies", 256L * MEBIBYTE);
  }

  /**
   * Sets the clock that {@link Cachette#clock()} runs with; the system clock by default. A {@link
   * TestClock} is used as it is, and its state is left to you.
   */
  public Settings clock(Clock clock) {
    return with("clock", clock);
  }

  /** Returns the clock that the session's clock runs with. */
  public Clock clock() {
    return get("clock", Clock.systemUTC());
  }

  boolean hasClock() {
    return values.containsKey("clock");
  }

  /** Sets the seed of random values, which start again in each test; 0 by default. */
  public Settings seed(long seed) {
    return with("seed", seed);
  }

  /** Returns the seed of random values. */
  public long seed() {
    return get("seed", 0L);
  }

  /**
   * Sets the mapper of {@link Call#as} and {@link Call#json}; by default one with every Jackson
   * module on the classpath.
   */
  public Settings mapper(ObjectMapper mapper) {
    return with("mapper", mapper);
  }

  /** Returns the mapper of {@link Call#as} and {@link Call#json}. */
  public ObjectMapper mapper() {
    Object mapper = values.get("mapper");
    return mapper == null ? Json.mapper() : (ObjectMapper) mapper;
  }

  /** Sets the name of the session in messages; by default the line that opened it. */
  public Settings name(String name) {
    return with("name", name);
  }

  /** Returns the name of the session in messages, if it is set. */
  public Optional<String> name() {
    return Optional.ofNullable((String) values.get("name"));
  }

  /**
   * Intercepts nothing: stubs are reached only by {@link Cachette#baseUrl()}, {@link
   * Cachette#baseUrlFor} and {@link Cachette#proxy()}. Any number of tests of one JVM can then run
   * in parallel, each with its own session, which does not see the calls of the others.
   */
  public Settings withoutInterception() {
    return interception(false);
  }

  /** Sets whether the calls of this JVM are intercepted; true by default. */
  public Settings interception(boolean intercepting) {
    return with("interception", intercepting);
  }

  /** Returns true if the calls of this JVM are intercepted. */
  public boolean interception() {
    return get("interception", true);
  }

  /**
   * Sets a system property to {@link Cachette#baseUrlFor} an origin while the session is open, for
   * an application that reads its base URL from there. The property is restored afterwards.
   *
   * @param property the name of the system property
   * @param origin scheme, host and port: {@code https://tides.example}
   */
  public Settings baseUrlInProperty(String property, String origin) {
    if (property == null || property.isBlank()) {
      throw Refusals.argument("baseUrlInProperty(property, origin) needs a property.");
    }
    Required.given("baseUrlInProperty", origin);
    Map<String, String> more = new LinkedHashMap<>(baseUrlInProperty());
    more.put(property, origin);
    return with("baseUrlInProperty", Collections.unmodifiableMap(more));
  }

  /** Returns the origins whose base URLs are in system properties, by the names of these. */
  public Map<String, String> baseUrlInProperty() {
    return get("baseUrlInProperty", Map.of());
  }

  /** Sets the folder of cassettes; {@code src/test/cassettes} by default. */
  public Settings cassetteFolder(Path folder) {
    return with("cassetteFolder", folder);
  }

  /** Returns the folder of cassettes. */
  public Path cassetteFolder() {
    return get("cassetteFolder", CASSETTES);
  }

  /** Sets the folder of stub files and API descriptions; {@code src/test/stubs} by default. */
  public Settings stubFolder(Path folder) {
    return with("stubFolder", folder);
  }

  /** Returns the folder of stub files and API descriptions. */
  public Path stubFolder() {
    return get("stubFolder", STUBS);
  }

  /**
   * Sets the address of {@link Cachette#baseUrl()} and {@link Cachette#proxy()}; by default a free
   * port of the loopback address. Everyone who can reach the address can call the stubs.
   *
   * @throws IllegalArgumentException if it is null or unresolved
   */
  public Settings listenAddress(InetSocketAddress address) {
    Required.given("listenAddress", address);
    if (address.isUnresolved()) {
      throw Refusals.argument("listenAddress: unknown host " + address.getHostString() + ".");
    }
    return with("listenAddress", address);
  }

  /** Returns the address of {@link Cachette#baseUrl()} and {@link Cachette#proxy()}. */
  public InetSocketAddress listenAddress() {
    Object address = values.get("listenAddress");
    return address == null
        ? new InetSocketAddress(InetAddress.getLoopbackAddress(), 0)
        : (InetSocketAddress) address;
  }

  /**
   * Treats calls to {@link Cachette#baseUrl()} as calls to this origin, like {@link
   * Cachette#baseUrlFor}.
   *
   * @param origin scheme, host and port: {@code https://tides.example}
   * @throws IllegalArgumentException if it is not an origin
   */
  public Settings servingAs(String origin) {
    Required.given("servingAs", origin);
    return with("servingAs", Uri.parseOrigin(origin).origin());
  }

  /** Returns the origin that calls to {@link Cachette#baseUrl()} are treated as, if it is set. */
  public Optional<String> servingAs() {
    return Optional.ofNullable((String) values.get("servingAs"));
  }

  /**
   * Stores the certificate authority in a file, readable only by its owner, so that other programs
   * can trust it permanently; by default it is in memory, for one session. The file is created if
   * it does not exist, and renewed before it expires.
   */
  public Settings certificateAuthority(Path file) {
    return with("certificateAuthority", file);
  }

  /** Returns the file of the certificate authority, if it is set. */
  public Optional<Path> certificateAuthority() {
    return Optional.ofNullable((Path) values.get("certificateAuthority"));
  }

  /**
   * Treats plain HTTP calls as HTTPS calls, for hosts without stubs for plain HTTP; for programs
   * that cannot be made to trust the certificate authority. False by default.
   */
  public Settings treatHttpAsHttps(boolean choice) {
    return with("treatHttpAsHttps", choice);
  }

  /** Returns true if plain HTTP calls are treated as HTTPS calls. */
  public boolean treatHttpAsHttps() {
    return get("treatHttpAsHttps", false);
  }

  /**
   * Treats a call that was certainly made for a test that is over, by a poller for example, as a
   * call of the running test; for an application that lives longer than its tests, such as a cached
   * Spring context. False by default: such a call is refused, and fails the class of its own test.
   */
  public Settings acceptLateCalls(boolean choice) {
    return with("acceptLateCalls", choice);
  }

  /** Returns true if calls of tests that are over are accepted. */
  public boolean acceptLateCalls() {
    return get("acceptLateCalls", false);
  }

  /**
   * Confines stubs from {@link Cachette#declare}: the files that they read, include and write must
   * be in these folders, and {@code realService} is refused. For a program that takes stubs from
   * others. Without it, there are no limits.
   *
   * @throws IllegalArgumentException if the folders are null
   */
  public Settings declaredWithin(List<Path> folders) {
    Refusals.given("declaredWithin(folders)", folders);
    return with("declaredWithin", List.copyOf(folders));
  }

  /** Returns the folders for the files of declared stubs; empty if there are no limits. */
  public Optional<List<Path>> declaredWithin() {
    return Optional.ofNullable(get("declaredWithin", null));
  }

  /**
   * Asks clients for a certificate in the TLS handshake (mutual TLS, RFC 8446 section 4.3.2), which
   * {@link dev.cachette.calls.Call#clientCertificate} returns. Any certificate is accepted, and a
   * client without one is answered, too. False by default, as most services do not ask.
   */
  public Settings requestClientCertificates(boolean choice) {
    return with("requestClientCertificates", choice);
  }

  /** Returns true if clients are asked for a certificate. */
  public boolean requestClientCertificates() {
    return get("requestClientCertificates", false);
  }

  /**
   * Sets the number of threads that serve connections; 1 by default, which is enough for the tests
   * of one JVM. More threads are for a server that many programs call at the same time.
   *
   * @throws IllegalArgumentException if the number is not positive
   */
  public Settings servingThreads(int threads) {
    return with("servingThreads", Required.positive("servingThreads", threads));
  }

  /** Returns the number of threads that serve connections. */
  public int servingThreads() {
    return get("servingThreads", 1);
  }

  /**
   * Sets whether web pages of other origins may call, in the CORS protocol of the Fetch standard;
   * false by default. Preflight requests are answered, unless a stub does, and each answer gets the
   * headers for the origin of its call, credentials allowed, unless it has them. That is true for
   * the explanations of unexpected calls, too.
   */
  public Settings cors(boolean allowed) {
    return with("cors", allowed);
  }

  /** Returns whether web pages of other origins may call. */
  public boolean cors() {
    return get("cors", false);
  }

  /**
   * Sets how long it may take to find the stub for a call; 2 seconds by default. It is the limit
   * for all conditions of the stubs that come into question, your own predicates included, and
   * again for the explanation of an unexpected call. A call that takes longer is answered with 500,
   * and fails the test with the condition that was being tested. Raise it to debug a predicate.
   *
   * @throws IllegalArgumentException if the duration is not positive
   */
  public Settings conditionTimeout(Duration atMost) {
    if (atMost == null || atMost.isNegative() || atMost.isZero()) {
      throw Refusals.argument("conditionTimeout must be positive, not " + atMost + ".");
    }
    return with("conditionTimeout", atMost);
  }

  /** Returns how long it may take to find the stub for a call. */
  public Duration conditionTimeout() {
    return get("conditionTimeout", Duration.ofSeconds(2));
  }

  /**
   * Shows calls and stubs on a page, from now to the end of the JVM, at this port of the loopback
   * address: 0 for a free one, -1 for no page, the default. Needs {@code cachette-control}.
   */
  public Settings livePage(int port) {
    return with("page", port);
  }

  /** Returns the port of the live page; empty for no page. */
  public OptionalInt livePage() {
    int port = get("page", -1);
    return port < 0 ? OptionalInt.empty() : OptionalInt.of(port);
  }

  /** Writes contracts to this folder; {@code target/contracts} by default. */
  public Settings contractFolder(Path folder) {
    return with("contractFolder", folder);
  }

  /** Returns the folder of contract files. */
  public Path contractFolder() {
    return get("contractFolder", CONTRACTS);
  }

  /**
   * Writes a report of the whole run, at the end of this JVM, to this folder: {@code index.html},
   * {@code run.json} and {@code summary.md}; none by default. Needs {@code cachette-report}.
   */
  public Settings report(Path folder) {
    return with("report", folder);
  }

  /** Returns the folder for the report of the run; empty for no report. */
  public Optional<Path> report() {
    return Optional.ofNullable(get("report", null));
  }

  /**
   * Calls this listener after each call has completed: for one call after the other, on a thread of
   * its own, so that calls do not wait for it.
   */
  public Settings callListener(Consumer<Call> listener) {
    return with("callListener", listener);
  }

  /** Returns the listener that is called after each call. */
  public Consumer<Call> callListener() {
    return get("callListener", NO_LISTENER);
  }

  /** Sets the settings of cassettes that are activated without their own. */
  public Settings cassettes(CassetteSettings settings) {
    return with("cassettes", settings);
  }

  /** Returns the settings of cassettes that are activated without their own. */
  public CassetteSettings cassettes() {
    return get("cassettes", CassetteSettings.defaults());
  }

  /** Calls a real service at another address, see {@link RealServices#at(String, String)}. */
  public Settings realServiceAt(String origin, String address) {
    return realServices(realServices().at(origin, address));
  }

  /** Sets how real services are called. */
  public Settings realServices(RealServices services) {
    return with("realServices", services);
  }

  /** Returns how real services are called. */
  public RealServices realServices() {
    return get("realServices", RealServices.defaults());
  }

  /**
   * Returns these settings with values from properties for everything that is not set yet: {@code
   * cachette.unusedStubs=FAIL}. {@link Cachette#open} does this with system properties.
   *
   * @param lookup returns the value of a property, or null
   * @throws IllegalArgumentException if a value is invalid; the message names the property and the
   *     allowed values
   */
  public Settings withProperties(Function<String, @Nullable String> lookup) {
    Required.given("withProperties(lookup)", lookup);
    return SettingsProperties.apply(this, lookup);
  }

  boolean isSet(String setting) {
    return values.containsKey(setting);
  }

  private Settings with(String setting, @Nullable Object value) {
    Required.given(setting, value);
    Map<String, Object> changed = new HashMap<>(values);
    changed.put(setting, value);
    return new Settings(Collections.unmodifiableMap(changed));
  }

  @SuppressWarnings("unchecked")
  private <T> T get(String setting, T byDefault) {
    return (T) values.getOrDefault(setting, byDefault);
  }
}
