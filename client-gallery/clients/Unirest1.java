// name: Unirest 1 (Apache HttpClient 4)
// needs: com.mashape.unirest:unirest-java:1.4.9
import com.mashape.unirest.http.Unirest;

public final class Unirest1 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return Unirest.get(origin + "/v1/tides").asString().getBody();
  }
}
