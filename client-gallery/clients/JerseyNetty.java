// name: Jersey, Netty
// needs: org.glassfish.jersey.connectors:jersey-netty-connector:3.1.11
// needs: org.glassfish.jersey.inject:jersey-hk2:3.1.11
import jakarta.ws.rs.client.ClientBuilder;
import org.glassfish.jersey.client.ClientConfig;
import org.glassfish.jersey.netty.connector.NettyConnectorProvider;

public final class JerseyNetty implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    ClientConfig config = new ClientConfig().connectorProvider(new NettyConnectorProvider());
    return ClientBuilder.newClient(config)
        .target(origin)
        .path("v1/tides")
        .request()
        .get(String.class);
  }
}
