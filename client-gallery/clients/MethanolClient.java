// name: Methanol
// needs: com.github.mizosoft.methanol:methanol:1.8.3
import com.github.mizosoft.methanol.Methanol;
import com.github.mizosoft.methanol.MutableRequest;
import java.net.http.HttpResponse.BodyHandlers;

public final class MethanolClient implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return Methanol.create()
        .send(MutableRequest.GET(origin + "/v1/tides"), BodyHandlers.ofString())
        .body();
  }
}
