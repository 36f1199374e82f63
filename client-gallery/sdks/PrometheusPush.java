// name: Prometheus Pushgateway
// needs: io.prometheus:prometheus-metrics-exporter-pushgateway:1.3.8
// needs: io.prometheus:prometheus-metrics-core:1.3.8
import io.prometheus.metrics.exporter.pushgateway.PushGateway;

public final class PrometheusPush implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    PushGateway.builder()
        .address("harbour.example:80")
        .job("tides")
        .build()
        .push();
    return "04:10";
  }

  @Override
  public java.util.List<String> schemes() {
    return java.util.List.of("http");
  }
}
