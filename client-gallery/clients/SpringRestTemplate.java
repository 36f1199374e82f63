// name: Spring RestTemplate (HttpURLConnection)
// needs: org.springframework:spring-web:6.2.19
import org.springframework.http.client.SimpleClientHttpRequestFactory;
import org.springframework.web.client.RestTemplate;

public final class SpringRestTemplate implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return new RestTemplate(new SimpleClientHttpRequestFactory())
        .getForObject(origin + "/v1/tides", String.class);
  }
}
