// name: Vert.x 4 web client
// needs: io.vertx:vertx-web-client:4.5.16
import io.vertx.core.Vertx;
import io.vertx.ext.web.client.WebClient;
import java.util.concurrent.TimeUnit;

public final class Vertx4 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return WebClient.create(Vertx.vertx())
        .getAbs(origin + "/v1/tides")
        .send()
        .toCompletionStage()
        .toCompletableFuture()
        .get(20, TimeUnit.SECONDS)
        .bodyAsString();
  }
}
