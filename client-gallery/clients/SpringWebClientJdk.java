// name: Spring WebClient (JDK HttpClient)
// needs: org.springframework:spring-webflux:6.2.19
import org.springframework.http.client.reactive.JdkClientHttpConnector;
import org.springframework.web.reactive.function.client.WebClient;

public final class SpringWebClientJdk implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return WebClient.builder()
        .clientConnector(new JdkClientHttpConnector())
        .build()
        .get()
        .uri(origin + "/v1/tides")
        .retrieve()
        .bodyToMono(String.class)
        .block();
  }
}
