// name: Apache CXF, JAX-RS
// needs: org.apache.cxf:cxf-rt-rs-client:4.1.2
import org.apache.cxf.jaxrs.client.WebClient;

public final class Cxf implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return WebClient.create(origin).path("v1/tides").get(String.class);
  }
}
