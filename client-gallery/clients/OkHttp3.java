// name: OkHttp 3
// needs: com.squareup.okhttp3:okhttp:3.14.9
import okhttp3.OkHttpClient;
import okhttp3.Request;

public final class OkHttp3 implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return new OkHttpClient()
        .newCall(new Request.Builder().url(origin + "/v1/tides").build())
        .execute()
        .body()
        .string();
  }
}
