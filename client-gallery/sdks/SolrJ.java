// name: SolrJ
// needs: org.apache.solr:solr-solrj:9.8.1
import java.util.List;
import java.util.Map;
import org.apache.solr.client.solrj.impl.Http2SolrClient;
import org.apache.solr.client.solrj.impl.XMLResponseParser;
import org.apache.solr.common.params.MapSolrParams;

public final class SolrJ implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    try (Http2SolrClient client =
        new Http2SolrClient.Builder(origin + "/solr")
            .withResponseParser(new XMLResponseParser())
            .build()) {
      return client.query("tides", new MapSolrParams(Map.of("q", "*:*"))).getResponse();
    }
  }

  @Override
  public List<String> answer() {
    return List.of("application/xml; charset=UTF-8", "<response><str name=\"high\">04:10</str></response>");
  }
}
