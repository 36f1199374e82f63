// SPDX-License-Identifier: Apache-2.0
package dev.cachette.benchmarks.startup;

import com.sun.net.httpserver.HttpsConfigurator;
import com.sun.net.httpserver.HttpsServer;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.SSLContext;

/** A plain TLS server, hand-written for a test, without interception. */
public final class OwnServer {

  private OwnServer() {}

  /** In a JVM that starts the server itself, until its first HTTPS answer. */
  public static void main(String[] arguments) throws Exception {
    HttpsServer server = start(Path.of(arguments[0]));
    FirstCall.get("https://localhost:" + server.getAddress().getPort() + "/v1/tides");
    server.stop(0);
  }

  static HttpsServer start(Path keyStore) throws IOException, GeneralSecurityException {
    char[] password = StartUp.PASSWORD.toCharArray();
    KeyStore keys = KeyStore.getInstance("PKCS12");
    try (InputStream in = Files.newInputStream(keyStore)) {
      keys.load(in, password);
    }
    KeyManagerFactory managers =
        KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
    managers.init(keys, password);
    SSLContext context = SSLContext.getInstance("TLS");
    context.init(managers.getKeyManagers(), null, null);
    HttpsServer server =
        HttpsServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    server.setHttpsConfigurator(new HttpsConfigurator(context));
    byte[] tides = "{\"high\":[\"04:10\"]}".getBytes(StandardCharsets.UTF_8);
    server.createContext(
        "/",
        exchange -> {
          exchange.sendResponseHeaders(200, tides.length);
          exchange.getResponseBody().write(tides);
          exchange.close();
        });
    server.start();
    return server;
  }
}
