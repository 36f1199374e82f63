package dev.cachette.cli;

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
import picocli.CommandLine.Option;

/** Where a command listens, what for, and with which authority: the same for all that do. */
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
      description = "The address; by default the loopback, which only this machine reaches.")
  private InetAddress address;

  @Option(
      names = "--for",
      paramLabel = "ORIGIN",
      converter = OriginReader.class,
      description =
          "The origin that plain calls are meant for, as https://tides.example. Without it, the "
              + "Host header says so, or the proxy request.")
  private @Nullable String origin;

  @Option(
      names = "--upstream",
      paramLabel = "ORIGIN",
      converter = OriginReader.class,
      description =
          "Where the real service is. Calls are then meant for it, unless --for says something "
              + "else.")
  private @Nullable String upstream;

  @Option(
      names = "--authority",
      paramLabel = "FILE",
      description =
          "The key and certificate for HTTPS; by default ~/.cachette/authority.pem, which is "
              + "made at its first use, for its owner alone.")
  private Path authority = Path.of(System.getProperty("user.home"), ".cachette", "authority.pem");

  @Option(
      names = "--authority-out",
      paramLabel = "FILE",
      description = "Write the certificate here, for programs that are to trust it.")
  private @Nullable Path authorityOut;

  @Nullable String upstream() {
    return upstream;
  }

  /** What plain calls are meant for; null where the Host header says so. */
  @Nullable String origin() {
    return origin == null ? upstream : origin;
  }

  Settings settings() {
    return settings(origin());
  }

  /**
   * The settings of what listens there.
   *
   * @param meant what plain calls are meant for; null where the Host header says so
   */
  Settings settings(@Nullable String meant) {
    InetSocketAddress at = new InetSocketAddress(address, port);
    Settings settings =
        Settings.defaults()
            .named("the command line")
            .withoutInterception()
            .unexpectedCalls(UnexpectedCalls.WARN)
            .unusedStubs(UnusedStubs.IGNORE)
            .maxCalls(MOST_CALLS)
            .maxCallBodies(MOST_BODIES)
            .listeningAt(at)
            .servingThreads(Math.min(MOST_THREADS, Runtime.getRuntime().availableProcessors()))
            .authority(authority);
    if (meant != null) {
      settings = settings.standingFor(meant);
    }
    return origin != null && upstream != null ? settings.realServiceAt(origin, upstream) : settings;
  }

  /** Whether it listens where other machines may call. */
  boolean isOpenToOthers() {
    return !address.isLoopbackAddress();
  }

  /** The same address, at another port. */
  InetSocketAddress at(int otherPort) {
    return new InetSocketAddress(address, otherPort);
  }

  /** Writes the certificate where it is wanted. */
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
