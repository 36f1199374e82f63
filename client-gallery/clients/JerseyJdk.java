// name: Jersey, its own NIO connector
// needs: org.glassfish.jersey.connectors:jersey-jdk-connector:3.1.11
// needs: org.glassfish.jersey.inject:jersey-hk2:3.1.11
import jakarta.ws.rs.client.ClientBuilder;
import org.glassfish.jersey.client.ClientConfig;
import org.glassfish.jersey.jdk.connector.JdkConnectorProvider;

public final class JerseyJdk implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    ClientConfig config = new ClientConfig().connectorProvider(new JdkConnectorProvider());
    return ClientBuilder.newClient(config)
        .target(origin)
        .path("v1/tides")
        .request()
        .get(String.class);
  }
}
