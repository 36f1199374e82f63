package harbour;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.time.Duration;

/** The code under test: it reads the tides of today, and tries again once if the service is busy. */
public final class Tides {

  private static final URI TODAY = URI.create("https://tides.example/v1/stations/marrow/tides");

  private final HttpClient http =
      HttpClient.newBuilder().connectTimeout(Duration.ofSeconds(5)).build();

  /**
   * Returns the tides as JSON.
   *
   * @throws IOException if the service does not answer, or not with 200
   */
  public String today() throws IOException, InterruptedException {
    HttpResponse<String> response = call();
    if (response.statusCode() == 503) {
      response = call();
    }
    if (response.statusCode() != 200) {
      throw new IOException("the tide service answered " + response.statusCode());
    }
    return response.body();
  }

  private HttpResponse<String> call() throws IOException, InterruptedException {
    HttpRequest request = HttpRequest.newBuilder(TODAY).timeout(Duration.ofSeconds(10)).build();
    return http.send(request, BodyHandlers.ofString());
  }
}
