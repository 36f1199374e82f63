// name: Sentry
// needs: io.sentry:sentry:8.16.0
import io.sentry.Sentry;
import java.util.List;

public final class SentrySdk implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    Sentry.init(
        options -> options.setDsn(origin.replace("://", "://key@") + "/1"));
    Sentry.captureMessage("04:10");
    Sentry.flush(10_000);
    Sentry.close();
    return "04:10";
  }
}
