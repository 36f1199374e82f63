// name: Feign, OkHttp
// needs: io.github.openfeign:feign-okhttp:13.12
import feign.Feign;

public final class FeignOkHttp implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return Feign.builder().client(new feign.okhttp.OkHttpClient()).target(Tides.class, origin).tides();
  }


  /** The service. */
  public interface Tides {

    @feign.RequestLine("GET /v1/tides")
    String tides();
  }
}
