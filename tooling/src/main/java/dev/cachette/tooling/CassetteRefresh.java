// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.cassette.CassetteContent;
import dev.cachette.cassette.CassetteSettings;
import dev.cachette.cassette.Drift;
import dev.cachette.cassette.Exchange;
import dev.cachette.cassette.Matching;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.cassette.Redaction;
import dev.cachette.http.Request;
import dev.cachette.internal.cassette.LoadedCassette;
import dev.cachette.internal.cassette.Merge;
import dev.cachette.internal.cassette.Varying;
import dev.cachette.internal.engine.RealServiceFailed;
import dev.cachette.internal.real.RealAddress;
import dev.cachette.internal.real.RealCalls;
import dev.cachette.internal.real.RealTrust;
import dev.cachette.internal.wire.Engine;
import java.nio.file.Path;
import java.security.cert.X509Certificate;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** The responses of the real services to the requests of a cassette, sent again. */
public final class CassetteRefresh {

  private final CassetteOnDisk cassette;
  private final List<Exchange> answered;
  private final Instant at;

  private CassetteRefresh(CassetteOnDisk cassette, List<Exchange> answered, Instant at) {
    this.cassette = cassette;
    this.answered = answered;
    this.at = at;
  }

  /** The real services. Immutable. */
  public static final class Services {

    private final Map<String, RealAddress> addresses;
    private final List<X509Certificate> authorities;

    /**
     * Describes them.
     *
     * @param addresses the addresses of services by their origins, where they differ from their
     *     names
     * @param authorities certificates (PEM) of authorities that sign for them, in addition to those
     *     that Java trusts; null for none
     * @throws IllegalArgumentException if an address or the authorities are unusable
     */
    public Services(Map<String, String> addresses, @Nullable Path authorities) {
      this.addresses =
          addresses.entrySet().stream()
              .collect(
                  Collectors.toUnmodifiableMap(
                      Map.Entry::getKey, it -> RealAddress.of(it.getValue())));
      this.authorities = authorities == null ? List.of() : RealTrust.read(authorities);
    }

    private RealCalls by(Engine engine) {
      return new RealCalls(engine, addresses, authorities);
    }
  }

  /**
   * Sends the requests, one after the other. The cassette is unchanged.
   *
   * @param rules the values of the secrets that requests need
   * @param progress is told before each request
   * @throws ToolingException if a service cannot be reached, or if a request needs a secret that is
   *     not given
   */
  public static CassetteRefresh of(
      CassetteOnDisk cassette, Redaction rules, Services services, Consumer<String> progress) {
    LoadedCassette again =
        new LoadedCassette(
            cassette.path().toString(),
            CassetteSettings.defaults().redaction(any -> rules),
            RecordingMode.REWRITE,
            cassette.recordings());
    try (Engine engine = new Engine()) {
      RealCalls real = services.by(engine);
      int number = 0;
      for (Exchange exchange : cassette.exchanges()) {
        number++;
        Request request = again.filled(exchange.request());
        requireFilled(number, request);
        progress.accept(
            String.format("%d of %d  %s", number, cassette.exchanges().size(), exchange.request()));
        try {
          again.keep(real.call(request, exchange.protocol()));
        } catch (RealServiceFailed failed) {
          throw new ToolingException(
              String.format(
                  "%s cannot be reached: %s. The cassette is unchanged.",
                  request.uri().origin(), failed.getMessage()));
        }
      }
    }
    return new CassetteRefresh(cassette, again.finished(), Instant.now());
  }

  private static void requireFilled(int number, Request request) {
    String text = request.uri() + "\n" + ExchangeText.of(request);
    CassettePlaceholders.in(text).stream()
        .findFirst()
        .ifPresent(
            name -> {
              throw new ToolingException(
                  String.format(
                      "exchange %d needs the secret %s, which is not in the cassette. Fix: "
                          + "--secret %s=",
                      number, name, name));
            });
  }

  /** Returns the drift from the cassette, but for what it declares as varying. */
  public Drift drift() {
    return cassette
        .content()
        .compareWith(
            new CassetteContent(cassette.path().toString(), Optional.of(at), answered),
            cassette.ignoringVarying(Matching.byDefault()));
  }

  /**
   * Writes the responses to the cassette, with secrets redacted.
   *
   * @throws dev.cachette.cassette.CassetteException if it cannot be written
   */
  public void write() {
    cassette
        .file()
        .save(
            new Merge(cassette.recordings(), answered, true, Varying.of(cassette.recordings())),
            at,
            ToolVersion.number());
  }
}
