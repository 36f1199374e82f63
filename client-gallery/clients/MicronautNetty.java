// name: Micronaut HTTP client (Netty)
// needs: io.micronaut:micronaut-http-client:4.9.2
// needs: io.micronaut:micronaut-jackson-databind:4.9.2
import io.micronaut.http.client.HttpClient;
import java.net.URI;

public final class MicronautNetty implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    try (HttpClient client = HttpClient.create(URI.create(origin).toURL())) {
      return client.toBlocking().retrieve("/v1/tides");
    }
  }
}
