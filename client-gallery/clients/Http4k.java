// name: http4k, OkHttp
// needs: org.http4k:http4k-client-okhttp:5.25.0.0
import org.http4k.client.OkHttp;
import org.http4k.core.Method;
import org.http4k.core.Request;
import org.http4k.core.Response;

public final class Http4k implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    Response response = OkHttp.create().invoke(Request.create(Method.GET, origin + "/v1/tides"));
    return response.bodyString();
  }
}
