// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.Cachette;
import dev.cachette.examples.harbour.CustomsClient;
import dev.cachette.examples.harbour.ManifestUpload;
import dev.cachette.junit.InterceptHttp;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** SOAP and multipart: bodies that are more than text. */
@InterceptHttp
class CustomsTest {

  private static final Map<String, String> CUSTOMS = Map.of("c", "urn:marrow-bay:customs");

  @Test
  void declaresCargo(Cachette net) {
    net.stub("POST https://customs.example/soap")
        .where(
            soap()
                .version("1.1")
                .action(endsWith(":declare"))
                .element("urn:marrow-bay:customs", "DeclareCargo"))
        .body(xpath("//c:tons", atMost(20), CUSTOMS))
        .answer(template("text/xml", "<declared><number>C-${counter.cargo}</number></declared>"));

    assertEquals("C-1", new CustomsClient().declare("Kittiwake", 12));
    assertEquals("C-2", new CustomsClient().declare("Kittiwake", 20));
  }

  @Test
  void uploadsTheManifest(Cachette net) {
    net.stub("POST https://customs.example/v1/manifests")
        .body(part("vessel").content(sameText("Kittiwake")))
        .body(
            part("manifest")
                .fileName("cargo.csv")
                .contentType(startsWith("text/csv"))
                .content(textBody(startsWith("rope,"))))
        .answer(status(201));

    new ManifestUpload().upload("Kittiwake", "rope,12");

    net.calls().assertCount(1);
  }
}
