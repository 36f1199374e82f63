// name: Dropwizard client
// needs: io.dropwizard:dropwizard-client:4.0.14
import com.codahale.metrics.MetricRegistry;
import io.dropwizard.client.HttpClientBuilder;
import org.apache.hc.client5.http.classic.methods.HttpGet;
import org.apache.hc.client5.http.impl.classic.BasicHttpClientResponseHandler;

public final class Dropwizard implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return new HttpClientBuilder(new MetricRegistry())
        .build("harbour")
        .execute(new HttpGet(origin + "/v1/tides"), new BasicHttpClientResponseHandler());
  }
}
