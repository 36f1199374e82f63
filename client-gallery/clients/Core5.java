// name: Apache HttpCore 5, HttpRequester
// needs: org.apache.httpcomponents.core5:httpcore5:5.3.4
import java.net.URI;
import org.apache.hc.core5.http.ClassicHttpResponse;
import org.apache.hc.core5.http.HttpHost;
import org.apache.hc.core5.http.impl.bootstrap.HttpRequester;
import org.apache.hc.core5.http.impl.bootstrap.RequesterBootstrap;
import org.apache.hc.core5.http.io.entity.EntityUtils;
import org.apache.hc.core5.http.io.support.ClassicRequestBuilder;
import org.apache.hc.core5.http.protocol.HttpCoreContext;
import org.apache.hc.core5.util.Timeout;

public final class Core5 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    HttpRequester requester = RequesterBootstrap.bootstrap().create();
    try (ClassicHttpResponse response =
        requester.execute(
            HttpHost.create(URI.create(origin)),
            ClassicRequestBuilder.get(origin + "/v1/tides").build(),
            Timeout.ofSeconds(20),
            HttpCoreContext.create())) {
      return EntityUtils.toString(response.getEntity());
    }
  }
}
