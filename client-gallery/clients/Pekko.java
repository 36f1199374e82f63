// name: Pekko HTTP client
// needs: org.apache.pekko:pekko-http_2.13:1.1.0
// needs: org.apache.pekko:pekko-stream_2.13:1.1.3
// needs: org.apache.pekko:pekko-actor_2.13:1.1.3
import java.util.concurrent.TimeUnit;
import org.apache.pekko.actor.ActorSystem;
import org.apache.pekko.http.javadsl.Http;
import org.apache.pekko.http.javadsl.model.HttpRequest;
import org.apache.pekko.http.javadsl.model.HttpResponse;

public final class Pekko implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    ActorSystem system = ActorSystem.create("harbour");
    HttpResponse response =
        Http.get(system)
            .singleRequest(HttpRequest.create(origin + "/v1/tides"))
            .toCompletableFuture()
            .get(20, TimeUnit.SECONDS);
    return response
        .entity()
        .toStrict(10_000, system)
        .toCompletableFuture()
        .get(20, TimeUnit.SECONDS)
        .getData()
        .utf8String();
  }
}
