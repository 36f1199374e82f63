// name: Jetty 9.4 client
// needs: org.eclipse.jetty:jetty-client:9.4.57.v20241219
import org.eclipse.jetty.client.HttpClient;
import org.eclipse.jetty.util.ssl.SslContextFactory;

public final class Jetty9 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    HttpClient client = new HttpClient(new SslContextFactory.Client());
    client.start();
    return client.GET(origin + "/v1/tides").getContentAsString();
  }
}
