// name: Slack
// needs: com.slack.api:slack-api-client:1.45.3
import com.slack.api.Slack;
import com.slack.api.SlackConfig;
import java.util.List;

public final class SlackSdk implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    SlackConfig config = new SlackConfig();
    config.setMethodsEndpointUrlPrefix(origin + "/api/");
    return Slack.getInstance(config).methods("xoxb-made-up").authTest(it -> it).getTeam();
  }

  @Override
  public List<String> answer() {
    return List.of("application/json", "{\"ok\":true,\"team\":\"04:10\"}");
  }
}
