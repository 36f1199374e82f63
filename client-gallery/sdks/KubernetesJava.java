// name: Kubernetes, official
// needs: io.kubernetes:client-java:24.0.0
import io.kubernetes.client.openapi.ApiClient;
import io.kubernetes.client.openapi.apis.CoreV1Api;
import io.kubernetes.client.util.Config;
import java.util.List;

public final class KubernetesJava implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    ApiClient client = Config.fromUrl(origin);
    return new CoreV1Api(client)
        .readNamespacedPod("tides", "harbour")
        .execute()
        .getStatus()
        .getPhase();
  }

  @Override
  public List<String> answer() {
    return List.of("application/json", "{\"kind\":\"Pod\",\"apiVersion\":\"v1\",\"metadata\":{\"name\":\"tides\"},\"spec\":{\"containers\":[]},\"status\":{\"phase\":\"04:10\"}}");
  }
}
