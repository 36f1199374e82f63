// name: Spring WebClient (Apache HttpClient 5)
// needs: org.springframework:spring-webflux:6.2.19
// needs: org.apache.httpcomponents.client5:httpclient5:5.5
// needs: org.apache.httpcomponents.core5:httpcore5-reactive:5.3.4
import org.springframework.http.client.reactive.HttpComponentsClientHttpConnector;
import org.springframework.web.reactive.function.client.WebClient;

public final class SpringWebClientHc5 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return WebClient.builder()
        .clientConnector(new HttpComponentsClientHttpConnector())
        .build()
        .get()
        .uri(origin + "/v1/tides")
        .retrieve()
        .bodyToMono(String.class)
        .block();
  }
}
