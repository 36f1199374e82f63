// name: AsyncHttpClient 2
// needs: org.asynchttpclient:async-http-client:2.12.4
import org.asynchttpclient.Dsl;

public final class AsyncHttpClient2 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return Dsl.asyncHttpClient().prepareGet(origin + "/v1/tides").execute().get().getResponseBody();
  }
}
