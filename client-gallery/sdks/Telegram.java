// name: Telegram Bot API
// needs: com.github.pengrad:java-telegram-bot-api:10.1.0
import com.pengrad.telegrambot.TelegramBot;
import com.pengrad.telegrambot.request.GetMe;
import java.util.List;

public final class Telegram implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return new TelegramBot.Builder("1:made-up")
        .apiUrl(origin + "/bot")
        .build()
        .execute(new GetMe())
        .user()
        .firstName();
  }

  @Override
  public List<String> answer() {
    return List.of("application/json", "{\"ok\":true,\"result\":{\"id\":1,\"is_bot\":true,\"first_name\":\"04:10\"}}");
  }
}
