// name: LangChain4j, OpenAI
// needs: dev.langchain4j:langchain4j-open-ai:1.1.0
import dev.langchain4j.model.openai.OpenAiChatModel;
import java.util.List;

public final class LangChain4j implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return OpenAiChatModel.builder()
        .baseUrl(origin + "/v1")
        .apiKey("made-up")
        .modelName("tides")
        .build()
        .chat("When is high water?");
  }

  @Override
  public List<String> answer() {
    return List.of("application/json", "{\"id\":\"1\",\"choices\":[{\"index\":0,\"message\":{\"role\":\"assistant\",\"content\":\"04:10\"},\"finish_reason\":\"stop\"}],\"usage\":{\"prompt_tokens\":1,\"completion_tokens\":1,\"total_tokens\":2}}");
  }
}
