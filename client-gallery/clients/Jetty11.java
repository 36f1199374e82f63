// name: Jetty 11 client
// needs: org.eclipse.jetty:jetty-client:11.0.25
import org.eclipse.jetty.client.HttpClient;

public final class Jetty11 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    HttpClient client = new HttpClient();
    client.start();
    return client.GET(origin + "/v1/tides").getContentAsString();
  }
}
