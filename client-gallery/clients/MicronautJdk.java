// name: Micronaut HTTP client (JDK)
// needs: io.micronaut:micronaut-http-client-jdk:4.10.26
// needs: io.micronaut:micronaut-jackson-databind:4.10.26
import io.micronaut.http.client.HttpClient;
import java.net.URI;

public final class MicronautJdk implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    try (HttpClient client = HttpClient.create(URI.create(origin).toURL())) {
      return client.toBlocking().retrieve("/v1/tides");
    }
  }
}
