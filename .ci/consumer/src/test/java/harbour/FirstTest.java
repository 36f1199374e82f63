package harbour;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import dev.cachette.Cachette;
import dev.cachette.identity.IdentityProvider;
import dev.cachette.junit.InterceptHttp;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

@InterceptHttp
class FirstTest {

  @Test
  void oneDependencyIsEnough(Cachette net) throws Exception {
    net.stub("GET https://tides.example/v1/tides").answer(json(Map.of("high", List.of("04:10"))));

    String body =
        HttpClient.newHttpClient()
            .send(
                HttpRequest.newBuilder(URI.create("https://tides.example/v1/tides")).build(),
                BodyHandlers.ofString())
            .body();

    assertEquals("{\"high\":[\"04:10\"]}", body);
    net.calls().assertCount(1);
  }

  @Test
  void identityNeedsNothingElse(Cachette net) throws Exception {
    IdentityProvider id = IdentityProvider.open(net, "https://id.example");
    id.user("mara");
    net.stub("GET https://tides.example/v1/tides")
        .bearer(id.token().withScope("tides:read"))
        .answer(json("[]"));
    HttpRequest request =
        HttpRequest.newBuilder(URI.create("https://tides.example/v1/tides"))
            .header("authorization", "Bearer " + id.accessToken("mara", "tides:read"))
            .build();

    assertEquals(
        "[]", HttpClient.newHttpClient().send(request, BodyHandlers.ofString()).body());
    assertThrows(ClassNotFoundException.class, () -> Class.forName("com.nimbusds.jwt.JWT"));
  }

  @Test
  void theEngineIsNotOnTheClassPath() {
    assertThrows(ClassNotFoundException.class, () -> Class.forName("io.netty.channel.Channel"));
    assertThrows(ClassNotFoundException.class, () -> Class.forName("org.objectweb.asm.ClassReader"));
  }
}
