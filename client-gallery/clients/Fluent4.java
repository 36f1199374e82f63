// name: Apache HttpClient 4, fluent
// needs: org.apache.httpcomponents:fluent-hc:4.5.14
import org.apache.http.client.fluent.Request;

public final class Fluent4 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return Request.Get(origin + "/v1/tides").execute().returnContent().asString();
  }
}
