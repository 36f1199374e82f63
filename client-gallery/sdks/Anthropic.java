// name: Anthropic
// needs: com.anthropic:anthropic-java:2.2.0
import com.anthropic.client.AnthropicClient;
import com.anthropic.client.okhttp.AnthropicOkHttpClient;
import java.util.List;

public final class Anthropic implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    AnthropicClient client =
        AnthropicOkHttpClient.builder().baseUrl(origin).apiKey("made-up").build();
    return client.models().retrieve("tides").displayName();
  }

  @Override
  public List<String> answer() {
    return List.of("application/json", "{\"id\":\"tides\",\"type\":\"model\",\"display_name\":\"04:10\",\"created_at\":\"2031-05-04T00:00:00Z\"}");
  }
}
