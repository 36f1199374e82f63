// name: Vert.x web client, Mutiny
// needs: io.smallrye.reactive:smallrye-mutiny-vertx-web-client:3.19.2
import io.vertx.mutiny.core.Vertx;
import io.vertx.mutiny.ext.web.client.WebClient;

public final class Mutiny implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return WebClient.create(Vertx.vertx())
        .getAbs(origin + "/v1/tides")
        .sendAndAwait()
        .bodyAsString();
  }
}
