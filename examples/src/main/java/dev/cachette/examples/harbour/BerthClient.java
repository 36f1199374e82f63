// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.harbour;

import com.fasterxml.jackson.annotation.JsonPropertyOrder;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import okhttp3.MediaType;
import okhttp3.OkHttpClient;
import okhttp3.Request;
import okhttp3.RequestBody;
import okhttp3.Response;

/** Books berths, with OkHttp. Retries while the service is busy (503). */
public final class BerthClient {

  private static final String BOOKINGS = "https://berths.example/v1/bookings";
  private static final MediaType JSON = MediaType.get("application/json");
  private static final int ATTEMPTS = 3;

  /** It must not book again by itself: the first request may have arrived. */
  private final OkHttpClient client =
      new OkHttpClient.Builder()
          .retryOnConnectionFailure(false)
          .connectTimeout(Http.CONNECT_TIMEOUT)
          .readTimeout(Http.TIMEOUT)
          .build();

  private final ObjectMapper mapper =
      new ObjectMapper().disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES);

  private final String token;

  /** The body of a booking request. */
  @JsonPropertyOrder({"vessel", "from"})
  private record Wish(Vessel vessel, String from) {}

  /** Creates a client with this token. */
  public BerthClient(String token) {
    this.token = token;
  }

  /**
   * Books a berth.
   *
   * @param from when the vessel wants to arrive, as {@code HH:mm}
   * @throws HarbourException if there is none, or if the service stays busy
   */
  public Booking book(Vessel vessel, String from) {
    try {
      byte[] wish = mapper.writeValueAsBytes(new Wish(vessel, from));
      Request request =
          new Request.Builder()
              .url(BOOKINGS)
              .header("authorization", "Bearer " + token)
              .post(RequestBody.create(wish, JSON))
              .build();
      for (int attempt = 1; attempt <= ATTEMPTS; attempt++) {
        try (Response response = client.newCall(request).execute()) {
          if (response.code() == 201) {
            return complete(mapper.readValue(response.body().bytes(), Booking.class));
          }
          if (response.code() != 503) {
            throw new HarbourException("the berth service answered " + response.code());
          }
        }
      }
      throw new HarbourException("the berth service is busy");
    } catch (IOException failed) {
      throw new HarbourException("the berth service cannot be reached", failed);
    }
  }

  private static Booking complete(Booking booking) {
    if (booking.berth() == null || booking.from() == null) {
      throw new HarbourException("the berth service has sent a booking without berth or time");
    }
    return booking;
  }
}
