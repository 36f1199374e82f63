// name: Elasticsearch, low-level
// needs: org.elasticsearch.client:elasticsearch-rest-client:8.18.3
import org.apache.http.HttpHost;
import org.apache.http.util.EntityUtils;
import org.elasticsearch.client.Request;
import org.elasticsearch.client.RestClient;

public final class ElasticsearchRest implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    try (RestClient client = RestClient.builder(HttpHost.create(origin)).build()) {
      return EntityUtils.toString(
          client.performRequest(new Request("GET", "/tides/_doc/1")).getEntity());
    }
  }
}
