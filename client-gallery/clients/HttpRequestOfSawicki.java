// name: http-request 6
// needs: com.github.kevinsawicki:http-request:6.0
import com.github.kevinsawicki.http.HttpRequest;

public final class HttpRequestOfSawicki implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return HttpRequest.get(origin + "/v1/tides").body();
  }
}
