// name: Unirest 3 (Apache HttpClient 4)
// needs: com.konghq:unirest-java:3.14.5
import kong.unirest.Unirest;

public final class Unirest3 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return Unirest.get(origin + "/v1/tides").asString().getBody();
  }
}
