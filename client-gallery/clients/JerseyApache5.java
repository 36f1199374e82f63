// name: Jersey, Apache HttpClient 5
// needs: org.glassfish.jersey.connectors:jersey-apache5-connector:3.1.11
// needs: org.glassfish.jersey.inject:jersey-hk2:3.1.11
import jakarta.ws.rs.client.ClientBuilder;
import org.glassfish.jersey.apache5.connector.Apache5ConnectorProvider;
import org.glassfish.jersey.client.ClientConfig;

public final class JerseyApache5 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    ClientConfig config = new ClientConfig().connectorProvider(new Apache5ConnectorProvider());
    return ClientBuilder.newClient(config)
        .target(origin)
        .path("v1/tides")
        .request()
        .get(String.class);
  }
}
