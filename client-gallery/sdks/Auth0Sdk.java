// name: Auth0
// needs: com.auth0:auth0:2.22.0
import com.auth0.client.mgmt.ManagementAPI;
import java.util.List;

public final class Auth0Sdk implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return ManagementAPI.newBuilder("harbour.example", "made-up")
        .build()
        .users()
        .get("auth0|1", null)
        .execute()
        .getBody()
        .getName();
  }

  @Override
  public List<String> answer() {
    return List.of("application/json", "{\"name\":\"04:10\"}");
  }

  @Override
  public List<String> schemes() {
    return List.of("https");
  }
}
