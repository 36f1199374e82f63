package dev.cachette.examples.harbour;

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

/** Reads tide tables, with the JDK's HTTP client. */
public final class TideClient {

  private static final String TIDES = "https://tides.example/v1/stations/%s/tides?day=%s";

  private final HttpClient client = HttpClient.newHttpClient();
  private final ObjectMapper mapper = new ObjectMapper();

  /**
   * The tides of a station on a day.
   *
   * @throws HarbourException if the tide service does not say
   */
  public Tides tidesOf(String station, LocalDate day) {
    String name = URLEncoder.encode(station, StandardCharsets.UTF_8).replace("+", "%20");
    HttpRequest request =
        HttpRequest.newBuilder(URI.create(String.format(TIDES, name, day)))
            .header("accept", "application/json")
            .build();
    try {
      HttpResponse<String> response = client.send(request, BodyHandlers.ofString());
      if (response.statusCode() != 200) {
        throw new HarbourException("the tide service answered " + response.statusCode());
      }
      return mapper.readValue(response.body(), Tides.class);
    } catch (IOException failed) {
      throw new HarbourException("the tide service cannot be understood", failed);
    } catch (InterruptedException interrupted) {
      Thread.currentThread().interrupt();
      throw new HarbourException("interrupted", interrupted);
    }
  }
}
