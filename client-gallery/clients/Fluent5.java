// name: Apache HttpClient 5, fluent
// needs: org.apache.httpcomponents.client5:httpclient5-fluent:5.5
import org.apache.hc.client5.http.fluent.Request;

public final class Fluent5 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return Request.get(origin + "/v1/tides").execute().returnContent().asString();
  }
}
