// name: Commons HttpClient 3.1
// needs: commons-httpclient:commons-httpclient:3.1
import org.apache.commons.httpclient.HttpClient;
import org.apache.commons.httpclient.methods.GetMethod;

public final class CommonsHttpClient implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    GetMethod get = new GetMethod(origin + "/v1/tides");
    new HttpClient().executeMethod(get);
    return get.getResponseBodyAsString();
  }
}
