// name: Meilisearch
// needs: com.meilisearch.sdk:meilisearch-java:0.15.0
import com.meilisearch.sdk.Client;
import com.meilisearch.sdk.Config;

public final class MeilisearchSdk implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return new Client(new Config(origin, "made-up")).index("tides").getRawDocument("1");
  }
}
