// name: Google HTTP client, Apache HttpClient 4
// needs: com.google.http-client:google-http-client-apache-v2:1.47.1
import com.google.api.client.http.GenericUrl;
import com.google.api.client.http.apache.v2.ApacheHttpTransport;

public final class GoogleApache implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return new ApacheHttpTransport()
        .createRequestFactory()
        .buildGetRequest(new GenericUrl(origin + "/v1/tides"))
        .execute()
        .parseAsString();
  }
}
