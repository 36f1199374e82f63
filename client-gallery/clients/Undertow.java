// name: Undertow client
// needs: io.undertow:undertow-core:2.3.18.Final
import io.undertow.client.ClientCallback;
import io.undertow.client.ClientConnection;
import io.undertow.client.ClientExchange;
import io.undertow.client.ClientRequest;
import io.undertow.client.UndertowClient;
import io.undertow.connector.ByteBufferPool;
import io.undertow.protocols.ssl.UndertowXnioSsl;
import io.undertow.server.DefaultByteBufferPool;
import io.undertow.util.Headers;
import io.undertow.util.Methods;
import io.undertow.util.StringReadChannelListener;
import java.io.IOException;
import java.net.URI;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import javax.net.ssl.SSLContext;
import org.xnio.OptionMap;
import org.xnio.Xnio;
import org.xnio.XnioWorker;

public final class Undertow implements Gallery.Entry {

  @Override
  public Object call(String origin) throws Exception {
    URI uri = URI.create(origin + "/v1/tides");
    XnioWorker worker = Xnio.getInstance().createWorker(OptionMap.EMPTY);
    ByteBufferPool pool = new DefaultByteBufferPool(false, 8192);
    UndertowXnioSsl tls =
        new UndertowXnioSsl(worker.getXnio(), OptionMap.EMPTY, SSLContext.getDefault());
    ClientConnection connection =
        UndertowClient.getInstance().connect(uri, worker, tls, pool, OptionMap.EMPTY).get();
    ClientRequest request = new ClientRequest().setMethod(Methods.GET).setPath("/v1/tides");
    request.getRequestHeaders().put(Headers.HOST, uri.getHost());
    CompletableFuture<String> body = new CompletableFuture<>();
    connection.getIoThread().execute(() -> connection.sendRequest(request, new Sent(pool, body)));
    return body.get(20, TimeUnit.SECONDS);
  }


  private record Sent(ByteBufferPool pool, CompletableFuture<String> body)
      implements ClientCallback<ClientExchange> {

    @Override
    public void completed(ClientExchange exchange) {
      exchange.setResponseListener(
          new ClientCallback<ClientExchange>() {
            @Override
            public void completed(ClientExchange answered) {
              new StringReadChannelListener(pool) {
                @Override
                protected void stringDone(String text) {
                  body.complete(text);
                }

                @Override
                protected void error(IOException failure) {
                  body.completeExceptionally(failure);
                }
              }.setup(answered.getResponseChannel());
            }

            @Override
            public void failed(IOException failure) {
              body.completeExceptionally(failure);
            }
          });
    }

    @Override
    public void failed(IOException failure) {
      body.completeExceptionally(failure);
    }
  }
}
