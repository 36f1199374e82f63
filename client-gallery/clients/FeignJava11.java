// name: Feign, JDK HttpClient
// needs: io.github.openfeign:feign-java11:13.13
import feign.Feign;

public final class FeignJava11 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return Feign.builder().client(new feign.http2client.Http2Client()).target(Tides.class, origin).tides();
  }


  /** The service. */
  public interface Tides {

    @feign.RequestLine("GET /v1/tides")
    String tides();
  }
}
