// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import dev.cachette.clients.HarbourClient.Reply;
import java.nio.charset.StandardCharsets;
import java.util.List;
import okhttp3.MediaType;
import okhttp3.OkHttpClient;
import okhttp3.Request;
import okhttp3.RequestBody;
import okhttp3.Response;
import okhttp3.ResponseBody;
import retrofit2.Call;
import retrofit2.Retrofit;
import retrofit2.http.Body;
import retrofit2.http.GET;
import retrofit2.http.POST;
import retrofit2.http.Url;

/** OkHttp, of whichever release is on the classpath, and what is built on it. */
final class OkHttpClients {

  private OkHttpClients() {}

  static HarbourClient create(Protocol protocol) {
    OkHttpClient client = client(protocol);
    HarbourClient calling =
        (method, url, body) -> {
          RequestBody json = body.map(OkHttpClients::json).orElse(null);
          Request request = new Request.Builder().url(url).method(method, json).build();
          try (Response got = client.newCall(request).execute()) {
            return Reply.of(got.code(), got.body().bytes());
          }
        };
    return calling.closing(() -> close(client));
  }

  static OkHttpClient client(Protocol protocol) {
    List<okhttp3.Protocol> spoken =
        switch (protocol) {
          case HTTP_2_CLEAR -> List.of(okhttp3.Protocol.H2_PRIOR_KNOWLEDGE);
          case HTTP_2 -> List.of(okhttp3.Protocol.HTTP_2, okhttp3.Protocol.HTTP_1_1);
          default -> List.of(okhttp3.Protocol.HTTP_1_1);
        };
    return new OkHttpClient.Builder().protocols(spoken).build();
  }

  private static void close(OkHttpClient client) {
    client.dispatcher().executorService().shutdown();
    client.connectionPool().evictAll();
  }

  private static RequestBody json(String text) {
    return RequestBody.create(
        text.getBytes(StandardCharsets.UTF_8), MediaType.get("application/json"));
  }

  /** A service as Retrofit wants it described. */
  interface Harbour {

    @GET
    Call<ResponseBody> get(@Url String url);

    @POST
    Call<ResponseBody> post(@Url String url, @Body RequestBody body);
  }

  static HarbourClient retrofit(Protocol protocol) {
    OkHttpClient client = client(protocol);
    Harbour harbour =
        new Retrofit.Builder()
            .baseUrl("https://tides.example/")
            .client(client)
            .build()
            .create(Harbour.class);
    HarbourClient calling =
        (method, url, body) -> {
          retrofit2.Response<ResponseBody> got =
              body.isPresent()
                  ? harbour.post(url, json(body.get())).execute()
                  : harbour.get(url).execute();
          ResponseBody content = got.isSuccessful() ? got.body() : got.errorBody();
          return Reply.of(got.code(), content == null ? null : content.bytes());
        };
    return calling.closing(() -> close(client));
  }
}
