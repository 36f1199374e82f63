// name: Mailgun
// needs: com.mailgun:mailgun-java:1.1.6
import com.mailgun.api.v3.MailgunMessagesApi;
import com.mailgun.client.MailgunClient;
import com.mailgun.model.message.Message;
import java.util.List;

public final class Mailgun implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return MailgunClient.config(origin + "/", "made-up")
        .createApi(MailgunMessagesApi.class)
        .sendMessage(
            "harbour.example",
            Message.builder()
                .from("berths@harbour.example")
                .to("ada@harbour.example")
                .subject("Berth 4")
                .text("Free from 04:10")
                .build())
        .getId();
  }

  @Override
  public List<String> answer() {
    return List.of("application/json", "{\"id\":\"04:10\",\"message\":\"Queued\"}");
  }
}
