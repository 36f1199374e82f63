// name: InfluxDB 2
// needs: com.influxdb:influxdb-client-java:7.2.0
import com.influxdb.client.InfluxDBClient;
import com.influxdb.client.InfluxDBClientFactory;
import java.util.List;

public final class InfluxDb implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    try (InfluxDBClient client =
        InfluxDBClientFactory.create(origin, "made-up".toCharArray(), "harbour", "tides")) {
      return client.getQueryApi().queryRaw("from(bucket: \"tides\")");
    }
  }

  @Override
  public List<String> answer() {
    return List.of("text/csv", "high\n04:10\n");
  }
}
