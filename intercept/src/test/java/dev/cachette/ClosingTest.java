// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.text;
import static org.junit.jupiter.api.Assertions.assertDoesNotThrow;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.internal.agent.Loaders;
import java.net.ConnectException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ProxySelector;
import java.net.Socket;
import java.net.URI;
import java.net.UnknownHostException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.security.KeyStore;
import java.security.cert.CertificateException;
import java.security.cert.X509Certificate;
import java.util.Arrays;
import java.util.HashSet;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.net.ssl.HttpsURLConnection;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLSessionContext;
import javax.net.ssl.TrustManagerFactory;
import javax.net.ssl.X509TrustManager;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.condition.EnabledOnOs;
import org.junit.jupiter.api.condition.OS;

/** After close() the JVM is as it was. */
class ClosingTest {

  /** Objects that the JDK's client and the compiler may keep. */
  private static final long HEAP_SLACK = 16 << 20;

  @Test
  void namesAreLookedUpForRealAgain() throws Exception {
    try (Cachette net = Cachette.open()) {
      assertEquals("tides.example", InetAddress.getByName("tides.example").getHostName());
    }

    assertThrows(UnknownHostException.class, () -> InetAddress.getByName("tides.example"));
  }

  @Test
  void theAuthorityIsTrustedOnlyWhileOpenAndOnlyForItsHost() throws Exception {
    X509TrustManager jvm = trustManagerOfTheJvm();
    X509Certificate[] chain;
    try (Cachette net = Cachette.open()) {
      net.stub("GET https://tides.example/v1").answer(text("ok"));
      HttpsURLConnection connection =
          (HttpsURLConnection) URI.create("https://tides.example/v1").toURL().openConnection();
      assertEquals(200, connection.getResponseCode());
      chain =
          Arrays.stream(connection.getServerCertificates())
              .map(X509Certificate.class::cast)
              .toArray(X509Certificate[]::new);
      X509Certificate[] authorityAlone = {chain[1]};

      assertDoesNotThrow(() -> jvm.checkServerTrusted(chain, "ECDHE_ECDSA"));
      assertThrows(
          CertificateException.class, () -> jvm.checkServerTrusted(authorityAlone, "ECDHE_ECDSA"));
      assertThrows(CertificateException.class, () -> jvm.checkClientTrusted(chain, "ECDHE_ECDSA"));
    }

    assertThrows(CertificateException.class, () -> jvm.checkServerTrusted(chain, "ECDHE_ECDSA"));
    assertEquals("tides.example", chain[0].getSubjectAlternativeNames().iterator().next().get(1));
    chain[0].verify(chain[1].getPublicKey());
  }

  @Test
  void theProxySelectorIsTheOldOne() {
    ProxySelector before = ProxySelector.getDefault();

    Cachette.open().close();

    assertEquals(before, ProxySelector.getDefault());
  }

  @Test
  void noListenerIsLeft() throws Exception {
    InetSocketAddress listener;
    try (Cachette net = Cachette.open();
        Socket socket = new Socket("tides.example", 80)) {
      listener = (InetSocketAddress) socket.getRemoteSocketAddress();
      assertTrue(listener.getAddress().isLoopbackAddress());
    }

    assertThrows(
        ConnectException.class, () -> new Socket(listener.getAddress(), listener.getPort()));
  }

  @Test
  void closingAgainDoesNothing() {
    Cachette net = Cachette.open();
    net.close();

    assertDoesNotThrow(net::close);
  }

  /**
   * Beyond the fortieth, so that what is made once a JVM is there already: the JDK makes a class
   * loader for each constructor that it calls by reflection more than 15 times. As many as one
   * likes with {@code -Dcachette.cycles=10000}.
   */
  @Test
  @Timeout(3_600)
  @EnabledOnOs(OS.LINUX)
  void manyCyclesLeaveNothingBehind() throws Exception {
    int cycles = Integer.getInteger("closing.cycles", 200);
    Remains warm = null;
    for (int cycle = 1; cycle <= cycles; cycle++) {
      try (Cachette net = Cachette.open()) {
        net.stub("GET https://tides.example/v1").answer(text("ok"));
        HttpsURLConnection connection =
            (HttpsURLConnection) URI.create("https://tides.example/v1").toURL().openConnection();
        connection.setRequestProperty("connection", "close");
        assertEquals("ok", new String(connection.getInputStream().readAllBytes()));
        net.calls().assertCount(1);
      }
      warm = cycle == 40 ? Remains.now() : warm;
    }
    Remains afterAll = Remains.now();

    assertEquals(Set.of(), minus(afterAll.threads(), warm.threads()));
    assertEquals(warm.listeningPorts(), afterAll.listeningPorts());
    assertTrue(afterAll.handles() <= warm.handles(), afterAll + " after " + warm);
    assertTrue(afterAll.classLoaders() <= warm.classLoaders(), afterAll + " / " + warm);
    assertEquals(Set.of(), afterAll.ours());
    assertTrue(afterAll.heap() < warm.heap() + HEAP_SLACK, afterAll + " / " + warm);
  }

  private static X509TrustManager trustManagerOfTheJvm() throws Exception {
    TrustManagerFactory factory =
        TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
    factory.init((KeyStore) null);
    return (X509TrustManager) factory.getTrustManagers()[0];
  }

  private static Set<String> minus(Set<String> all, Set<String> known) {
    return all.stream().filter(each -> !known.contains(each)).collect(Collectors.toSet());
  }

  private record Remains(
      Set<String> threads, long handles, Set<String> listeningPorts, long classLoaders, long heap) {

    static Remains now() throws Exception {
      // The JDK's client keeps the TLS sessions of all its connections, up to 20,480 of them.
      SSLSessionContext sessions = SSLContext.getDefault().getClientSessionContext();
      int size = sessions.getSessionCacheSize();
      sessions.setSessionCacheSize(1);
      sessions.setSessionCacheSize(size);
      System.gc();
      Set<String> threads =
          Thread.getAllStackTraces().keySet().stream()
              .map(Thread::getName)
              // Comes and goes with the connections that the JDK's client keeps for itself.
              .filter(name -> !name.equals("Keep-Alive-Timer"))
              .collect(Collectors.toSet());
      Set<String> handles = new HashSet<>();
      try (Stream<Path> open = Files.list(Path.of("/proc/self/fd"))) {
        for (Path handle : open.toList()) {
          if (Files.exists(handle, LinkOption.NOFOLLOW_LINKS)) {
            handles.add(Files.readSymbolicLink(handle).toString());
          }
        }
      } catch (NoSuchFileException ignored) {
        // The handle by which the directory itself was read.
      }
      try (Stream<String> v4 = Files.lines(Path.of("/proc/self/net/tcp"));
          Stream<String> v6 = Files.lines(Path.of("/proc/self/net/tcp6"))) {
        // The table is that of the whole machine; the socket's number tells which are ours.
        Set<String> listening =
            Stream.concat(v4, v6)
                .map(line -> line.strip().split("\\s+"))
                .filter(fields -> fields[3].equals("0A"))
                .filter(fields -> handles.contains("socket:[" + fields[9] + "]"))
                .map(fields -> fields[1])
                .collect(Collectors.toSet());
        Runtime jvm = Runtime.getRuntime();
        return new Remains(
            threads,
            handles.size(),
            listening,
            Loaders.count(),
            jvm.totalMemory() - jvm.freeMemory());
      }
    }

    Set<String> ours() {
      return threads.stream()
          .filter(name -> name.startsWith("cachette"))
          .collect(Collectors.toSet());
    }
  }
}
