// name: Ratpack HTTP client
// needs: io.ratpack:ratpack-core:1.9.0
// needs: io.ratpack:ratpack-test:1.9.0
import java.net.URI;
import ratpack.http.client.HttpClient;
import ratpack.test.exec.ExecHarness;

public final class Ratpack implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    try (ExecHarness harness = ExecHarness.harness()) {
      return harness
          .yield(
              execution ->
                  HttpClient.of(spec -> {})
                      .get(URI.create(origin + "/v1/tides"))
                      .map(response -> response.getBody().getText()))
          .getValueOrThrow();
    }
  }
}
