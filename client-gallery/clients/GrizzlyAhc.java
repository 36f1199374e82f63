// name: Grizzly AsyncHttpClient
// needs: org.glassfish.grizzly:grizzly-http-client:1.16
import com.ning.http.client.AsyncHttpClient;
import com.ning.http.client.AsyncHttpClientConfig;
import com.ning.http.client.providers.grizzly.GrizzlyAsyncHttpProvider;

public final class GrizzlyAhc implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    AsyncHttpClientConfig config = new AsyncHttpClientConfig.Builder().build();
    return new AsyncHttpClient(new GrizzlyAsyncHttpProvider(config), config)
        .prepareGet(origin + "/v1/tides")
        .execute()
        .get()
        .getResponseBody();
  }
}
