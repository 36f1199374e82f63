// name: Google Maps services
// needs: com.google.maps:google-maps-services:2.2.0
import com.google.maps.GeoApiContext;
import com.google.maps.GeocodingApi;
import java.util.List;

public final class GoogleMaps implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    return GeocodingApi.geocode(
            new GeoApiContext.Builder().baseUrlOverride(origin).apiKey("AIza-made-up").build(),
            "Marrow Bay")
        .await()[0]
        .formattedAddress;
  }

  @Override
  public List<String> answer() {
    return List.of("application/json", "{\"status\":\"OK\",\"results\":[{\"formatted_address\":\"04:10\"}]}");
  }
}
