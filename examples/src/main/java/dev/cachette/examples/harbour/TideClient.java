// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.harbour;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.Optional;

/** Reads tide tables, with the JDK's HTTP client. */
public final class TideClient {

  private static final String TIDES = "https://tides.example/v1/stations/%s/tides?day=%s";

  private final HttpClient client =
      HttpClient.newBuilder().connectTimeout(Http.CONNECT_TIMEOUT).build();

  private final ObjectMapper mapper =
      new ObjectMapper().disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES);

  private final Optional<String> key;

  /** Creates a client without a key. */
  public TideClient() {
    this(Optional.empty());
  }

  /** Creates a client with this key, if there is one. */
  public TideClient(Optional<String> key) {
    this.key = key;
  }

  /**
   * Returns the tides of a station on a day.
   *
   * @throws HarbourException if the tide service fails
   */
  public Tides tidesOf(String station, LocalDate day) {
    String name = URLEncoder.encode(station, StandardCharsets.UTF_8).replace("+", "%20");
    HttpRequest.Builder builder =
        HttpRequest.newBuilder(URI.create(String.format(TIDES, name, day)))
            .timeout(Http.TIMEOUT)
            .header("accept", "application/json");
    key.ifPresent(shown -> builder.header("x-api-key", shown));
    HttpRequest request = builder.build();
    try {
      HttpResponse<String> response = client.send(request, BodyHandlers.ofString());
      if (response.statusCode() != 200) {
        throw new HarbourException("the tide service answered " + response.statusCode());
      }
      Tides tides = mapper.readValue(response.body(), Tides.class);
      if (tides.high() == null) {
        throw new HarbourException("the tide service has sent no high waters");
      }
      return tides;
    } catch (JsonProcessingException malformed) {
      throw new HarbourException("the response of the tide service cannot be read", malformed);
    } catch (IOException failed) {
      throw new HarbourException("the tide service cannot be reached", failed);
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
      throw new HarbourException("interrupted", interrupted);
    }
  }
}
