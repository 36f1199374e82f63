// name: Avaje HTTP client
// needs: io.avaje:avaje-http-client:3.3
import io.avaje.http.client.HttpClient;

public final class Avaje implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return HttpClient.builder()
        .baseUrl(origin)
        .build()
        .request()
        .path("v1/tides")
        .GET()
        .asString()
        .body();
  }
}
