// name: OpenAI
// needs: com.openai:openai-java:4.101.0
import com.openai.client.OpenAIClient;
import com.openai.client.okhttp.OpenAIOkHttpClient;
import java.util.List;

public final class OpenAi implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    OpenAIClient client =
        OpenAIOkHttpClient.builder().baseUrl(origin + "/v1").apiKey("made-up").build();
    return client.models().retrieve("tides").id();
  }

  @Override
  public List<String> answer() {
    return List.of("application/json", "{\"id\":\"04:10\",\"object\":\"model\",\"created\":1,\"owned_by\":\"harbour\"}");
  }
}
