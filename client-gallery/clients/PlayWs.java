// name: Play WS standalone
// needs: com.typesafe.play:play-ahc-ws-standalone_2.13:2.2.16
import akka.actor.ActorSystem;
import akka.stream.Materializer;
import com.typesafe.config.ConfigFactory;
import java.util.concurrent.TimeUnit;
import play.libs.ws.ahc.AhcWSClientConfigFactory;
import play.libs.ws.ahc.StandaloneAhcWSClient;

public final class PlayWs implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    ActorSystem system = ActorSystem.create("harbour");
    StandaloneAhcWSClient client =
        StandaloneAhcWSClient.create(
            AhcWSClientConfigFactory.forConfig(
                ConfigFactory.load(), Thread.currentThread().getContextClassLoader()),
            Materializer.matFromSystem(system));
    return client
        .url(origin + "/v1/tides")
        .get()
        .toCompletableFuture()
        .get(20, TimeUnit.SECONDS)
        .getBody();
  }
}
