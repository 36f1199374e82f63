// name: Apache CXF, HttpURLConnection
// needs: org.apache.cxf:cxf-rt-rs-client:4.1.2
import org.apache.cxf.jaxrs.client.WebClient;

public final class CxfUrlConnection implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    System.setProperty("force.urlconnection.http.conduit", "true");
    return WebClient.create(origin).path("v1/tides").get(String.class);
  }
}
