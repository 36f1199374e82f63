package dev.cachette;

import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.calls.Call;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.http.Uri;
import dev.cachette.internal.json.Json;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * How a {@link Cachette} behaves. Immutable: every method with an argument returns new settings,
 * and {@link #defaults()} is where to begin.
 */
public final class Settings {

  /** The folder of cassettes where none is set. */
  static final Path CASSETTES = Path.of("src", "test", "cassettes");

  /** The folder of stub files where none is set. */
  static final Path STUBS = Path.of("src", "test", "stubs");

  private static final int MEBIBYTE = 1024 * 1024;
  private static final Settings DEFAULTS = new Settings();

  private UnexpectedCalls unexpectedCalls = UnexpectedCalls.FAIL;
  private UnusedStubs unusedStubs = UnusedStubs.WARN;
  private int maxRequestBody = 64 * MEBIBYTE;
  private int maxCalls = 100_000;
  private long maxCallBodies = 256L * MEBIBYTE;
  private Clock clock = Clock.systemUTC();
  private long seed;
  private @Nullable ObjectMapper mapper;
  private @Nullable String name;
  private boolean intercepting = true;
  private Map<String, String> properties = Map.of();
  private Path cassetteFolder = CASSETTES;
  private Path stubFolder = STUBS;
  private InetSocketAddress address = new InetSocketAddress(InetAddress.getLoopbackAddress(), 0);
  private @Nullable String origin;
  private @Nullable Path authority;
  private Consumer<Call> watcher = call -> {};
  private boolean treatHttpAsHttps;
  private int servingThreads = 1;
  private CassetteSettings cassettes = CassetteSettings.defaults();
  private Map<String, String> addresses = Map.of();

  private Settings() {}

  private Settings(Settings other) {
    this.unexpectedCalls = other.unexpectedCalls;
    this.unusedStubs = other.unusedStubs;
    this.maxRequestBody = other.maxRequestBody;
    this.maxCalls = other.maxCalls;
    this.maxCallBodies = other.maxCallBodies;
    this.clock = other.clock;
    this.seed = other.seed;
    this.mapper = other.mapper;
    this.name = other.name;
    this.intercepting = other.intercepting;
    this.properties = other.properties;
    this.cassetteFolder = other.cassetteFolder;
    this.stubFolder = other.stubFolder;
    this.address = other.address;
    this.origin = other.origin;
    this.authority = other.authority;
    this.watcher = other.watcher;
    this.treatHttpAsHttps = other.treatHttpAsHttps;
    this.servingThreads = other.servingThreads;
    this.cassettes = other.cassettes;
    this.addresses = other.addresses;
  }

  /**
   * Unexpected calls fail, unused stubs warn, request bodies up to 64 MiB, a log of 100,000 calls
   * and 256 MiB, the system's clock, Jackson with all modules it finds.
   */
  public static Settings defaults() {
    return DEFAULTS;
  }

  /** What a call does that no stub answers; {@link UnexpectedCalls#FAIL} by default. */
  public Settings unexpectedCalls(UnexpectedCalls choice) {
    Settings changed = changed("unexpectedCalls", choice);
    changed.unexpectedCalls = choice;
    return changed;
  }

  /** What a stub does that no call used; {@link UnusedStubs#WARN} by default. */
  public Settings unusedStubs(UnusedStubs choice) {
    Settings changed = changed("unusedStubs", choice);
    changed.unusedStubs = choice;
    return changed;
  }

  /**
   * The largest request body, in bytes, that is held in memory; 64 MiB by default. A larger one is
   * answered with 400 and an explanation, and noted as an unexpected call.
   *
   * @throws IllegalArgumentException if the number is not positive
   */
  public Settings maxRequestBody(int bytes) {
    requirePositive("maxRequestBody is a positive number of bytes", bytes);
    Settings changed = new Settings(this);
    changed.maxRequestBody = bytes;
    return changed;
  }

  /**
   * How many calls the log of a test holds; 100,000 by default. Where there are more, the oldest
   * are dropped, and assertions that could be wrong because of it fail and say so.
   *
   * @throws IllegalArgumentException if the number is not positive
   */
  public Settings maxCalls(int calls) {
    requirePositive("maxCalls is a positive number of calls", calls);
    Settings changed = new Settings(this);
    changed.maxCalls = calls;
    return changed;
  }

  /**
   * How many bytes of bodies, of requests and responses together, the log of a test holds; 256 MiB
   * by default. Where there are more, the oldest calls are dropped; the last one always stays.
   *
   * @throws IllegalArgumentException if the number is not positive
   */
  public Settings maxCallBodies(long bytes) {
    requirePositive("maxCallBodies is a positive number of bytes", bytes);
    Settings changed = new Settings(this);
    changed.maxCallBodies = bytes;
    return changed;
  }

  /**
   * The clock of templates, and of stubs that are active from or until an instant; by default that
   * of the system. With a clock of one's own, such as {@link ManualClock}, a test can move time.
   */
  public Settings clock(Clock choice) {
    Settings changed = changed("clock", choice);
    changed.clock = choice;
    return changed;
  }

  /** Where what is drawn at random begins, in each test again; 0 by default. */
  public Settings seed(long choice) {
    Settings changed = new Settings(this);
    changed.seed = choice;
    return changed;
  }

  /**
   * The mapper that {@link dev.cachette.calls.Call#as} and {@link dev.cachette.calls.Call#json}
   * read with; by default one with every Jackson module on the class path.
   */
  public Settings mapper(ObjectMapper objectMapper) {
    Settings changed = changed("mapper", objectMapper);
    changed.mapper = objectMapper;
    return changed;
  }

  /**
   * Whose Cachette it is, for messages such as the one on a second {@code open()}; by default the
   * line that opened it.
   */
  public Settings named(String owner) {
    Settings changed = changed("named", owner);
    changed.name = owner;
    return changed;
  }

  /**
   * Intercepts nothing: the stubs are reached by {@link Cachette#baseUrl()}, {@link
   * Cachette#baseUrlFor} and {@link Cachette#proxy()} alone. So any number of tests of one JVM can
   * run at the same time, each with a Cachette of its own, none of which sees the calls of another.
   */
  public Settings withoutInterception() {
    Settings changed = new Settings(this);
    changed.intercepting = false;
    return changed;
  }

  /**
   * Puts {@link Cachette#baseUrlFor} an origin into a system property while the Cachette is open,
   * for an application that starts then and takes its base URL from there. Afterwards the property
   * is as it was.
   *
   * @param property the name of the system property
   * @param origin scheme, host and port: {@code https://tides.example}
   */
  public Settings baseUrlInProperty(String property, String origin) {
    if (property == null || property.isBlank()) {
      throw new IllegalArgumentException("baseUrlInProperty(property, origin) has no property.");
    }
    Settings changed = changed("baseUrlInProperty", origin);
    Map<String, String> more = new LinkedHashMap<>(properties);
    more.put(property, origin);
    changed.properties = Collections.unmodifiableMap(more);
    return changed;
  }

  /** Where cassettes are; {@code src/test/cassettes} of the working directory by default. */
  public Settings cassetteFolder(Path folder) {
    Settings changed = changed("cassetteFolder", folder);
    changed.cassetteFolder = folder;
    return changed;
  }

  /** Where stub files are; {@code src/test/stubs} of the working directory by default. */
  public Settings stubFolder(Path folder) {
    Settings changed = changed("stubFolder", folder);
    changed.stubFolder = folder;
    return changed;
  }

  /**
   * Where {@link Cachette#baseUrl()} and {@link Cachette#proxy()} listen; by default at a free port
   * of the loopback. Whoever can reach another address can call all that is stubbed here.
   *
   * @throws IllegalArgumentException if it is null or not resolved
   */
  public Settings listeningAt(InetSocketAddress choice) {
    Settings changed = changed("listeningAt", choice);
    if (choice.isUnresolved()) {
      throw new IllegalArgumentException("There is no host " + choice.getHostString() + ".");
    }
    changed.address = choice;
    return changed;
  }

  /**
   * Takes calls to {@link Cachette#baseUrl()} for calls to this origin, as {@link
   * Cachette#baseUrlFor} does.
   *
   * @param choice scheme, host and port: {@code https://tides.example}
   * @throws IllegalArgumentException if it is no origin
   */
  public Settings servingAs(String choice) {
    Settings changed = changed("servingAs", choice);
    changed.origin = Uri.parseOrigin(choice).origin();
    return changed;
  }

  /**
   * Keeps the authority that certificates are by in a file, with the rights of its owner alone, so
   * that other programs can be told once to trust it; by default it lives in memory as long as the
   * Cachette. It is made if it is not there, and again when it is about to expire.
   */
  public Settings authority(Path file) {
    Settings changed = changed("authority", file);
    changed.authority = file;
    return changed;
  }

  /**
   * Takes calls over plain HTTP, to hosts for which nothing plain is stubbed, for calls over HTTPS;
   * for programs that cannot be made to trust the authority.
   */
  public Settings treatHttpAsHttps() {
    Settings changed = new Settings(this);
    changed.treatHttpAsHttps = true;
    return changed;
  }

  /**
   * How many threads serve connections; 1 by default, which is enough for the tests of one JVM.
   * More are for a Cachette that many programs call at once.
   *
   * @throws IllegalArgumentException if the number is not positive
   */
  public Settings servingThreads(int threads) {
    requirePositive("servingThreads is a positive number of threads", threads);
    Settings changed = new Settings(this);
    changed.servingThreads = threads;
    return changed;
  }

  /**
   * Is told of each call once it has its whole answer. It is called on the threads that serve, so
   * it must be quick, and safe to be called by several of them at once.
   */
  public Settings watchingCalls(Consumer<Call> choice) {
    Settings changed = changed("watchingCalls", choice);
    changed.watcher = choice;
    return changed;
  }

  /** How cassettes behave that are put in by name alone. */
  public Settings cassettes(CassetteSettings how) {
    Settings changed = changed("cassettes", how);
    changed.cassettes = how;
    return changed;
  }

  /**
   * Reaches a real service at another address, a staging system for example; for {@link
   * Cachette#letThrough}, real services as answers, and recording. The code under test, and the
   * cassette, know the origin that it calls in production.
   *
   * @param origin scheme, host and port: {@code https://tides.example}
   * @param address where it is: {@code http://127.0.0.1:8085}
   * @throws IllegalArgumentException if one is no origin
   */
  public Settings realServiceAt(String origin, String address) {
    Settings changed = changed("realServiceAt", origin);
    changed("realServiceAt", address);
    Map<String, String> more = new LinkedHashMap<>(addresses);
    more.put(Uri.parseOrigin(origin).origin(), Uri.parseOrigin(address).origin());
    changed.addresses = Collections.unmodifiableMap(more);
    return changed;
  }

  Map<String, String> addresses() {
    return addresses;
  }

  Path cassetteFolder() {
    return cassetteFolder;
  }

  Path stubFolder() {
    return stubFolder;
  }

  InetSocketAddress address() {
    return address;
  }

  Optional<String> origin() {
    return Optional.ofNullable(origin);
  }

  Optional<Path> authority() {
    return Optional.ofNullable(authority);
  }

  int servingThreads() {
    return servingThreads;
  }

  boolean treatsHttpAsHttps() {
    return treatHttpAsHttps;
  }

  Consumer<Call> watcher() {
    return watcher;
  }

  /** How cassettes behave that are put in by name alone. */
  public CassetteSettings cassettes() {
    return cassettes;
  }

  Optional<String> name() {
    return Optional.ofNullable(name);
  }

  /** Returns true if calls of this JVM are intercepted; true by default. */
  public boolean isIntercepting() {
    return intercepting;
  }

  Map<String, String> properties() {
    return properties;
  }

  UnexpectedCalls unexpectedCalls() {
    return unexpectedCalls;
  }

  UnusedStubs unusedStubs() {
    return unusedStubs;
  }

  int maxRequestBody() {
    return maxRequestBody;
  }

  int maxCalls() {
    return maxCalls;
  }

  long maxCallBodies() {
    return maxCallBodies;
  }

  Clock clock() {
    return clock;
  }

  long seed() {
    return seed;
  }

  ObjectMapper mapper() {
    return mapper == null ? Json.mapper() : mapper;
  }

  private Settings changed(String setting, @Nullable Object value) {
    if (value == null) {
      throw new IllegalArgumentException("The setting " + setting + " must not be null.");
    }
    return new Settings(this);
  }

  private static void requirePositive(String what, long value) {
    if (value <= 0) {
      throw new IllegalArgumentException(what + ", not " + value + ".");
    }
  }
}
