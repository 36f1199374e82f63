// name: Consul
// needs: com.orbitz.consul:consul-client:1.5.3
import com.orbitz.consul.Consul;
import java.util.List;

public final class ConsulClient implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return Consul.builder()
        .withUrl(origin)
        .withPing(false)
        .build()
        .keyValueClient()
        .getValueAsString("tides")
        .orElse("");
  }

  @Override
  public List<String> answer() {
    return List.of("application/json", "[{\"Key\":\"tides\",\"Value\":\"MDQ6MTA=\",\"CreateIndex\":1,\"ModifyIndex\":1,\"LockIndex\":0,\"Flags\":0}]");
  }
}
