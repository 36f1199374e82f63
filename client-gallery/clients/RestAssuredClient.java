// name: REST Assured
// needs: io.rest-assured:rest-assured:5.5.5
import io.restassured.RestAssured;

public final class RestAssuredClient implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return RestAssured.get(origin + "/v1/tides").asString();
  }
}
