// name: AsyncHttpClient 1.9 (Netty 3)
// needs: com.ning:async-http-client:1.9.40
import com.ning.http.client.AsyncHttpClient;

public final class AsyncHttpClient1 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return new AsyncHttpClient()
        .prepareGet(origin + "/v1/tides")
        .execute()
        .get()
        .getResponseBody();
  }
}
