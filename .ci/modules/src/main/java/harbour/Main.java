package harbour;

import static dev.cachette.Factories.json;

import dev.cachette.Cachette;
import dev.cachette.identity.IdentityProvider;
import dev.cachette.sweep.FaultSweep;
import dev.cachette.sweep.result.SweepFault;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.util.Map;

/** Intercepts, signs a token, and sweeps, on the module path. */
public final class Main {

  private static final HttpClient HTTP = HttpClient.newHttpClient();

  private Main() {}

  public static void main(String[] arguments) throws Exception {
    if (!Main.class.getModule().isNamed() || !Cachette.class.getModule().isNamed()) {
      throw new IllegalStateException("not on the module path");
    }
    try (Cachette net = Cachette.open()) {
      IdentityProvider id = IdentityProvider.open(net, "https://id.example");
      id.user("mara");
      net.stub("GET https://tides.example/v1/today")
          .bearer(id.token())
          .answer(json(Map.of("high", "04:10")));
      String token = id.accessToken("mara");
      FaultSweep.of(net, () -> tides(token))
          .allow(IOException.class)
          .faults(SweepFault.CONNECTION_RESET, SweepFault.NOT_FOUND)
          .run()
          .assertRight();
      System.out.println("on the module path: " + tides(token));
    }
  }

  private static String tides(String token) throws IOException, InterruptedException {
    var request =
        HttpRequest.newBuilder(URI.create("https://tides.example/v1/today"))
            .header("authorization", "Bearer " + token)
            .build();
    var response = HTTP.send(request, BodyHandlers.ofString());
    if (response.statusCode() != 200) {
      throw new IOException("tides.example answered " + response.statusCode());
    }
    return response.body();
  }
}
