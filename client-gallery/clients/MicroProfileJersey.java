// name: MicroProfile Rest Client (Jersey)
// needs: org.glassfish.jersey.ext.microprofile:jersey-mp-rest-client:3.1.10
// needs: org.glassfish.jersey.inject:jersey-hk2:3.1.10
// needs: org.eclipse.microprofile.config:microprofile-config-api:3.1
// needs: io.smallrye.config:smallrye-config:3.13.0
// needs: jakarta.interceptor:jakarta.interceptor-api:2.2.0
// needs: jakarta.enterprise:jakarta.enterprise.cdi-api:4.0.1
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;
import java.net.URI;
import org.eclipse.microprofile.rest.client.RestClientBuilder;

public final class MicroProfileJersey implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return RestClientBuilder.newBuilder()
        .baseUri(URI.create(origin))
        .build(Tides.class)
        .tides();
  }


  /** The service. */
  @Path("/v1")
  public interface Tides {

    @GET
    @Path("/tides")
    String tides();
  }
}
