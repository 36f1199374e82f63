// name: Feign, Apache HttpClient 5
// needs: io.github.openfeign:feign-hc5:13.9.1
import feign.Feign;

public final class FeignHc5 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return Feign.builder().client(new feign.hc5.ApacheHttp5Client()).target(Tides.class, origin).tides();
  }


  /** The service. */
  public interface Tides {

    @feign.RequestLine("GET /v1/tides")
    String tides();
  }
}
