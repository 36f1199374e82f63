// name: Spring HTTP interface
// needs: org.springframework:spring-web:6.2.19
// needs: org.springframework:spring-context:6.2.19
import org.springframework.web.client.RestClient;
import org.springframework.web.client.support.RestClientAdapter;
import org.springframework.web.service.annotation.GetExchange;
import org.springframework.web.service.invoker.HttpServiceProxyFactory;

public final class SpringHttpInterface implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    RestClient client = RestClient.create(origin);
    return HttpServiceProxyFactory.builderFor(RestClientAdapter.create(client))
        .build()
        .createClient(Tides.class)
        .tides();
  }


  /** The service. */
  public interface Tides {

    @GetExchange("/v1/tides")
    String tides();
  }
}
