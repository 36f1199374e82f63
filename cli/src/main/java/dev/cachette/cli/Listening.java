// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.RealServices;
import dev.cachette.Settings;
import dev.cachette.UnexpectedCalls;
import dev.cachette.UnusedStubs;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

/** Options of commands that listen: address, origin, and certificate authority. */
final class Listening {

  private static final int MOST_CALLS = 10_000;
  private static final int MOST_THREADS = 4;
  private static final long MOST_BODIES = 64L << 20;

  @Option(
      names = "--port",
      paramLabel = "PORT",
      defaultValue = "0",
      converter = PortReader.class,
      description = "The port; by default a free one.")
  private int port;

  @Option(
      names = "--listen",
      paramLabel = "ADDRESS",
      defaultValue = "127.0.0.1",
      converter = AddressReader.class,
      description =
          "The address; by default the loopback address, which only this machine can reach.")
  private InetAddress address;

  @Option(
      names = "--for",
      paramLabel = "ORIGIN",
      converter = OriginReader.class,
      description =
          "The origin of plain calls, such as https://tides.example. By default, the Host header or"
              + " the proxy request says so.")
  private @Nullable String origin;

  @Option(
      names = "--upstream",
      paramLabel = "ORIGIN",
      converter = OriginReader.class,
      description = "The real service. Calls are then for it, unless --for gives another origin.")
  private @Nullable String upstream;

  @Option(
      names = "--upstream-name",
      paramLabel = "NAME",
      description =
          "The host name of the real service in TLS and in the Host header; by default that of"
              + " --upstream.")
  private @Nullable String upstreamName;

  @Mixin private TrustedCa trusted;

  @Mixin private AuthorityOption authority;

  @Option(
      names = "--ca-cert-out",
      paramLabel = "FILE",
      description = "Write the CA certificate here, for programs that have to trust it.")
  private @Nullable Path authorityOut;

  @Nullable String upstream() {
    return upstream;
  }

  /** Returns the origin of plain calls; null if the Host header says so. */
  @Nullable String origin() {
    return origin == null ? upstream : origin;
  }

  Settings settings() {
    return settings(origin());
  }

  /**
   * Returns the settings.
   *
   * @param meant the origin of plain calls; null if the Host header says so
   */
  Settings settings(@Nullable String meant) {
    InetSocketAddress at = new InetSocketAddress(address, port);
    Settings settings =
        Settings.defaults()
            .name("the command line")
            .withoutInterception()
            .unexpectedCalls(UnexpectedCalls.WARN)
            .unusedStubs(UnusedStubs.IGNORE)
            .maxCalls(MOST_CALLS)
            .maxCallBodies(MOST_BODIES)
            .listenAddress(at)
            .servingThreads(Math.min(MOST_THREADS, Runtime.getRuntime().availableProcessors()))
            .certificateAuthority(authority.file());
    if (meant != null) {
      settings = settings.servingAs(meant);
    }
    return settings.realServices(realServices());
  }

  private RealServices realServices() {
    if (upstreamName != null && upstream == null) {
      throw new WrongUsage("--upstream-name needs --upstream, whose name it is.");
    }
    try {
      RealServices services = RealServices.defaults();
      if (upstream != null && upstreamName != null) {
        services = services.at(origin(), upstream, upstreamName);
      } else if (upstream != null && origin != null) {
        services = services.at(origin, upstream);
      }
      return trusted.addedTo(services);
    } catch (IllegalArgumentException unusable) {
      throw new WrongUsage(unusable.getMessage());
    }
  }

  /** Returns true if other machines may connect. */
  boolean isOpenToOthers() {
    return !address.isLoopbackAddress();
  }

  /** Returns the same address with another port. */
  InetSocketAddress at(int otherPort) {
    return new InetSocketAddress(address, otherPort);
  }

  /** Writes the certificate, if requested. */
  void writeCertificate(String pem) {
    if (authorityOut == null) {
      return;
    }
    try {
      Files.writeString(authorityOut, pem);
    } catch (IOException unwritable) {
      throw new UncheckedIOException("the certificate", unwritable);
    }
  }
}
