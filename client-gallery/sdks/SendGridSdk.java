// name: SendGrid
// needs: com.sendgrid:sendgrid-java:4.10.3
import com.sendgrid.Method;
import com.sendgrid.Request;
import com.sendgrid.SendGrid;
import java.util.List;

public final class SendGridSdk implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    SendGrid client = new SendGrid("made-up");
    client.setHost("harbour.example");
    Request request = new Request();
    request.setMethod(Method.GET);
    request.setEndpoint("templates");
    return client.api(request).getBody();
  }

  @Override
  public List<String> schemes() {
    return List.of("https");
  }
}
