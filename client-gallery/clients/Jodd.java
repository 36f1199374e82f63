// name: Jodd HTTP
// needs: org.jodd:jodd-http:6.3.0
import jodd.http.HttpRequest;

public final class Jodd implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return HttpRequest.get(origin + "/v1/tides").send().bodyText();
  }
}
