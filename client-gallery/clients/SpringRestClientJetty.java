// name: Spring RestClient (Jetty)
// needs: org.springframework:spring-web:6.2.19
// needs: org.eclipse.jetty:jetty-client:12.0.22
import org.springframework.http.client.JettyClientHttpRequestFactory;
import org.springframework.web.client.RestClient;

public final class SpringRestClientJetty implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return RestClient.builder()
        .requestFactory(new JettyClientHttpRequestFactory())
        .build()
        .get()
        .uri(origin + "/v1/tides")
        .retrieve()
        .body(String.class);
  }
}
