// name: Spring RestClient (Reactor Netty)
// needs: org.springframework:spring-web:6.2.19
// needs: org.springframework:spring-context:6.2.19
// needs: io.projectreactor.netty:reactor-netty-http:1.2.8
import org.springframework.http.client.ReactorClientHttpRequestFactory;
import org.springframework.web.client.RestClient;

public final class SpringRestClientReactor implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return RestClient.builder()
        .requestFactory(new ReactorClientHttpRequestFactory())
        .build()
        .get()
        .uri(origin + "/v1/tides")
        .retrieve()
        .body(String.class);
  }
}
