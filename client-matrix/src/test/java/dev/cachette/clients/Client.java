package dev.cachette.clients;

import java.io.IOException;
import java.io.InputStream;
import java.net.HttpURLConnection;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublisher;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.concurrent.ExecutionException;
import okhttp3.MediaType;
import okhttp3.OkHttpClient;
import okhttp3.Request;
import okhttp3.RequestBody;
import okhttp3.Response;
import org.apache.hc.client5.http.async.methods.SimpleHttpRequest;
import org.apache.hc.client5.http.async.methods.SimpleHttpResponse;
import org.apache.hc.client5.http.async.methods.SimpleRequestBuilder;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;
import org.apache.hc.client5.http.impl.async.CloseableHttpAsyncClient;
import org.apache.hc.client5.http.impl.async.HttpAsyncClients;
import org.apache.hc.client5.http.impl.classic.CloseableHttpClient;
import org.apache.hc.client5.http.impl.classic.HttpClients;
import org.apache.hc.core5.http.ContentType;
import org.apache.hc.core5.http.RequestNotExecutedException;
import org.apache.hc.core5.http.io.entity.EntityUtils;
import org.apache.hc.core5.http.io.entity.StringEntity;
import org.apache.hc.core5.io.CloseMode;

/** The clients, each with its defaults: not one setting is made for the sake of a test. */
enum Client {
  JDK_HTTP_CLIENT {
    @Override
    HarbourClient create() {
      HttpClient client = HttpClient.newHttpClient();
      return (method, url, body) -> {
        HttpResponse<String> response =
            client.send(jdk(method, url, body), BodyHandlers.ofString());
        return new HarbourClient.Reply(response.statusCode(), response.body());
      };
    }
  },

  JDK_HTTP_CLIENT_ASYNC {
    @Override
    HarbourClient create() {
      HttpClient client = HttpClient.newHttpClient();
      return (method, url, body) ->
          client
              .sendAsync(jdk(method, url, body), BodyHandlers.ofString())
              .thenApply(got -> new HarbourClient.Reply(got.statusCode(), got.body()))
              .get();
    }
  },

  HTTP_URL_CONNECTION {
    @Override
    HarbourClient create() {
      return (method, url, body) -> {
        HttpURLConnection connection = (HttpURLConnection) URI.create(url).toURL().openConnection();
        connection.setRequestMethod(method);
        if (body.isPresent()) {
          connection.setDoOutput(true);
          connection.setRequestProperty("content-type", "application/json");
          connection.getOutputStream().write(body.get().getBytes(StandardCharsets.UTF_8));
        }
        int status = connection.getResponseCode();
        try (InputStream in =
            status < 400 ? connection.getInputStream() : connection.getErrorStream()) {
          // There is no stream at all for an error without a body.
          byte[] bytes = in == null ? new byte[0] : in.readAllBytes();
          return new HarbourClient.Reply(status, new String(bytes, StandardCharsets.UTF_8));
        }
      };
    }
  },

  APACHE_5_CLASSIC {
    @Override
    HarbourClient create() {
      CloseableHttpClient client = HttpClients.createDefault();
      return new HarbourClient() {
        @Override
        public Reply call(String method, String url, Optional<String> body) throws IOException {
          HttpUriRequestBase request = new HttpUriRequestBase(method, URI.create(url));
          body.ifPresent(
              json -> request.setEntity(new StringEntity(json, ContentType.APPLICATION_JSON)));
          return client.execute(
              request, got -> new Reply(got.getCode(), EntityUtils.toString(got.getEntity())));
        }

        @Override
        public void close() {
          client.close(CloseMode.IMMEDIATE);
        }
      };
    }
  },

  APACHE_5_ASYNC {
    @Override
    HarbourClient create() {
      CloseableHttpAsyncClient client = HttpAsyncClients.createDefault();
      client.start();
      return new HarbourClient() {
        @Override
        public Reply call(String method, String url, Optional<String> body) throws Exception {
          SimpleHttpRequest request = SimpleRequestBuilder.create(method).setUri(url).build();
          body.ifPresent(json -> request.setBody(json, ContentType.APPLICATION_JSON));
          SimpleHttpResponse got = execute(request);
          return new Reply(got.getCode(), got.getBodyText());
        }

        /**
         * Where the other side has just closed a kept connection, this client may take it once
         * more, says that nothing was sent, and leaves it to its caller to ask again.
         */
        private SimpleHttpResponse execute(SimpleHttpRequest request) throws Exception {
          try {
            return client.execute(request, null).get();
          } catch (ExecutionException failed) {
            if (failed.getCause() instanceof RequestNotExecutedException) {
              return client.execute(request, null).get();
            }
            throw failed;
          }
        }

        @Override
        public void close() {
          client.close(CloseMode.IMMEDIATE);
        }
      };
    }
  },

  OKHTTP_5 {
    @Override
    HarbourClient create() {
      OkHttpClient client = new OkHttpClient();
      return new HarbourClient() {
        @Override
        public Reply call(String method, String url, Optional<String> body) throws IOException {
          RequestBody json =
              body.map(text -> RequestBody.create(text, MediaType.get("application/json")))
                  .orElse(null);
          Request request = new Request.Builder().url(url).method(method, json).build();
          try (Response got = client.newCall(request).execute()) {
            return new Reply(got.code(), got.body().string());
          }
        }

        @Override
        public void close() {
          client.dispatcher().executorService().shutdown();
          client.connectionPool().evictAll();
        }
      };
    }
  };

  abstract HarbourClient create();

  private static HttpRequest jdk(String method, String url, Optional<String> body) {
    BodyPublisher publisher = body.map(BodyPublishers::ofString).orElseGet(BodyPublishers::noBody);
    HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(url)).method(method, publisher);
    body.ifPresent(json -> request.header("content-type", "application/json"));
    return request.build();
  }
}
