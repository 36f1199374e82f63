// name: Spring WebClient (Jetty)
// needs: org.springframework:spring-webflux:6.2.19
// needs: org.eclipse.jetty:jetty-reactive-httpclient:4.0.9
import org.springframework.http.client.reactive.JettyClientHttpConnector;
import org.springframework.web.reactive.function.client.WebClient;

public final class SpringWebClientJetty implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return WebClient.builder()
        .clientConnector(new JettyClientHttpConnector())
        .build()
        .get()
        .uri(origin + "/v1/tides")
        .retrieve()
        .bodyToMono(String.class)
        .block();
  }
}
