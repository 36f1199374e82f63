// name: Kubernetes, fabric8
// needs: io.fabric8:kubernetes-client:7.3.1
import io.fabric8.kubernetes.client.ConfigBuilder;
import io.fabric8.kubernetes.client.KubernetesClient;
import io.fabric8.kubernetes.client.KubernetesClientBuilder;
import java.util.List;

public final class Fabric8 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    try (KubernetesClient client =
        new KubernetesClientBuilder()
            .withConfig(new ConfigBuilder().withMasterUrl(origin).withAutoConfigure(false).build())
            .build()) {
      return client.pods().inNamespace("harbour").withName("tides").get().getStatus().getPhase();
    }
  }

  @Override
  public List<String> answer() {
    return List.of("application/json", "{\"kind\":\"Pod\",\"apiVersion\":\"v1\",\"metadata\":{\"name\":\"tides\"},\"status\":{\"phase\":\"04:10\"}}");
  }
}
