// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import dev.cachette.Settings;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyStore;
import java.security.cert.X509Certificate;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.SSLContext;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.opentest4j.AssertionFailedError;

/** Clients that authenticate by the certificate of their connection (RFC 8705). */
class ClientCertificateLoginTest {

  private static final char[] PASSWORD = "harbour".toCharArray();

  @TempDir Path folder;

  private KeyStore pair(String name) throws Exception {
    Path file = folder.resolve(name + ".p12");
    Path keytool = Path.of(System.getProperty("java.home"), "bin", "keytool");
    Process made =
        new ProcessBuilder(
                keytool.toString(),
                "-genkeypair",
                "-keyalg",
                "EC",
                "-alias",
                name,
                "-dname",
                "CN=" + name,
                "-storetype",
                "PKCS12",
                "-storepass",
                new String(PASSWORD),
                "-keystore",
                file.toString())
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("keytool.log").toFile())
            .start();
    assertEquals(0, made.waitFor());
    KeyStore pair = KeyStore.getInstance("PKCS12");
    try (InputStream in = Files.newInputStream(file)) {
      pair.load(in, PASSWORD);
    }
    return pair;
  }

  private static int token(KeyStore pair) throws Exception {
    KeyManagerFactory keys = KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
    keys.init(pair, PASSWORD);
    SSLContext tls = SSLContext.getInstance("TLS");
    tls.init(keys.getKeyManagers(), null, null);
    HttpRequest request =
        HttpRequest.newBuilder(URI.create(TestClient.ISSUER + "/token"))
            .header("content-type", "application/x-www-form-urlencoded")
            .POST(BodyPublishers.ofString("grant_type=client_credentials&client_id=tide-robot"))
            .build();
    return HttpClient.newBuilder()
        .sslContext(tls)
        .build()
        .send(request, BodyHandlers.discarding())
        .statusCode();
  }

  @Test
  void certificatesAuthenticateClients() throws Exception {
    KeyStore own = pair("tide-robot");
    KeyStore other = pair("stranger");
    Cachette net = Cachette.open(Settings.defaults().requestClientCertificates(true));
    IdentityProvider id = IdentityProvider.open(net, TestClient.ISSUER);
    id.client("tide-robot").certificate((X509Certificate) own.getCertificate("tide-robot"));
    assertEquals(200, token(own));
    assertEquals(401, token(other));

    String message = assertThrows(AssertionFailedError.class, net::close).getMessage();
    assertTrue(message.contains("expected  self_signed_tls_client_auth"), message);
  }
}
