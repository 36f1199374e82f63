// name: Reactor Netty 1.0 (Netty 4.1)
// needs: io.projectreactor.netty:reactor-netty-http:1.0.48
import reactor.netty.http.client.HttpClient;

public final class ReactorNetty1 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return HttpClient.create()
        .get()
        .uri(origin + "/v1/tides")
        .responseContent()
        .aggregate()
        .asString()
        .block();
  }
}
