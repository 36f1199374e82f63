// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples;

import static com.fasterxml.jackson.databind.PropertyNamingStrategies.UPPER_CAMEL_CASE;
import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;

import com.fasterxml.jackson.databind.json.JsonMapper;
import dev.cachette.Cachette;
import dev.cachette.Settings;
import dev.cachette.UnexpectedCalls;
import dev.cachette.examples.harbour.Vessel;
import dev.cachette.junit.CachetteExtension;
import dev.cachette.junit.InterceptHttp;
import java.io.IOException;
import java.net.HttpURLConnection;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.api.parallel.ResourceLock;

/** Settings: bodies read with the project's own mapper, unexpected calls that only warn. */
@ResourceLock(InterceptHttp.LOCK)
class SettingsExampleTest {

  @RegisterExtension
  static final CachetteExtension CACHETTE =
      CachetteExtension.with(
          Settings.defaults()
              .mapper(JsonMapper.builder().propertyNamingStrategy(UPPER_CAMEL_CASE).build())
              .unexpectedCalls(UnexpectedCalls.WARN));

  @Test
  void readsBodiesWithTheProjectsMapper(Cachette net) throws IOException {
    net.stub("PUT https://berths.example/v1/vessels").answer(status(204));

    assertEquals(204, put("{\"Name\": \"Kittiwake\", \"Draught\": 4.2}"));

    assertEquals(new Vessel("Kittiwake", 4.2), net.calls().only().as(Vessel.class));
  }

  @Test
  void anUnexpectedCallGets501() throws IOException {
    assertEquals(501, put("{}"));
  }

  private static int put(String body) throws IOException {
    HttpURLConnection vessels =
        (HttpURLConnection)
            URI.create("https://berths.example/v1/vessels").toURL().openConnection();
    vessels.setRequestMethod("PUT");
    vessels.setDoOutput(true);
    vessels.getOutputStream().write(body.getBytes(StandardCharsets.UTF_8));
    return vessels.getResponseCode();
  }
}
