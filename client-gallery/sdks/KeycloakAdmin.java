// name: Keycloak admin client
// needs: org.keycloak:keycloak-admin-client:26.0.6
import java.util.List;
import org.keycloak.admin.client.Keycloak;

public final class KeycloakAdmin implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return Keycloak.getInstance(origin, "harbour", "admin-cli", "made-up-token")
        .realm("harbour")
        .toRepresentation()
        .getDisplayName();
  }

  @Override
  public List<String> answer() {
    return List.of("application/json", "{\"realm\":\"harbour\",\"displayName\":\"04:10\"}");
  }
}
