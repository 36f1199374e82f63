// name: Twilio
// needs: com.twilio.sdk:twilio:10.9.2
import com.twilio.http.TwilioRestClient;
import com.twilio.rest.api.v2010.account.Message;
import java.util.List;

public final class TwilioSdk implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return Message.fetcher("SM00000000000000000000000000000001")
        .fetch(new TwilioRestClient.Builder("AC1", "made-up").accountSid("AC1").build())
        .getBody();
  }

  @Override
  public List<String> answer() {
    return List.of("application/json", "{\"body\":\"04:10\",\"sid\":\"SM1\"}");
  }

  @Override
  public List<String> schemes() {
    return List.of("https");
  }

  @Override
  public String host() {
    return "api.twilio.com";
  }
}
