// name: HttpBuilder-NG
// needs: io.github.http-builder-ng:http-builder-ng-core:1.0.4
// needs: org.codehaus.groovy:groovy-all:2.5.23
import groovyx.net.http.HttpBuilder;

public final class GroovyHttpBuilder implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return HttpBuilder.configure(config -> config.getRequest().setUri(origin))
        .get(config -> config.getRequest().getUri().setPath("/v1/tides"));
  }
}
