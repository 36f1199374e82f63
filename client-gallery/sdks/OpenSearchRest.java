// name: OpenSearch, low-level
// needs: org.opensearch.client:opensearch-rest-client:2.19.2
import org.apache.http.HttpHost;
import org.apache.http.util.EntityUtils;
import org.opensearch.client.Request;
import org.opensearch.client.RestClient;

public final class OpenSearchRest implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    try (RestClient client = RestClient.builder(HttpHost.create(origin)).build()) {
      return EntityUtils.toString(
          client.performRequest(new Request("GET", "/tides/_doc/1")).getEntity());
    }
  }
}
