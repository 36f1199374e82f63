// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.web;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.Cachette;
import dev.cachette.junit.InterceptHttp;
import java.io.InputStream;
import java.net.URI;
import java.nio.file.Path;
import org.apache.catalina.Context;
import org.apache.catalina.startup.Tomcat;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A plain servlet container, with a servlet that calls out when it starts. */
@InterceptHttp
class TideServletTest {

  @Test
  void passesTheTidesOn(Cachette net, @TempDir Path folder) throws Exception {
    net.stub("GET https://tides.example/v1/stations/ours").answer(text("marrow"));
    net.stub("GET https://tides.example/v1/stations/marrow/tides")
        .answer(json("{\"high\": [\"04:10\"]}"));
    Tomcat tomcat = new Tomcat();
    tomcat.setBaseDir(folder.toString());
    tomcat.setPort(0);
    Context context = tomcat.addContext("", folder.toString());
    Tomcat.addServlet(context, "tides", new TideServlet()).setLoadOnStartup(1);
    context.addServletMappingDecoded("/tides", "tides");
    try {
      tomcat.start();
      net.calls("GET https://tides.example/v1/stations/ours").assertCount(1);
      int port = tomcat.getConnector().getLocalPort();

      try (InputStream in =
          URI.create("http://localhost:" + port + "/tides").toURL().openStream()) {
        assertEquals("{\"high\": [\"04:10\"]}", new String(in.readAllBytes()));
      }
    } finally {
      tomcat.stop();
      tomcat.destroy();
    }
  }
}
