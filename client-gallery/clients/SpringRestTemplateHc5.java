// name: Spring RestTemplate (Apache HttpClient 5)
// needs: org.springframework:spring-web:6.2.19
// needs: org.apache.httpcomponents.client5:httpclient5:5.5
import org.springframework.http.client.HttpComponentsClientHttpRequestFactory;
import org.springframework.web.client.RestTemplate;

public final class SpringRestTemplateHc5 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return new RestTemplate(new HttpComponentsClientHttpRequestFactory())
        .getForObject(origin + "/v1/tides", String.class);
  }
}
