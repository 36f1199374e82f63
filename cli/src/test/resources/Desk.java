import java.net.*;
import java.net.http.*;
import java.io.*;

class Desk {
  public static void main(String[] arguments) throws Exception {
    URL url = URI.create(arguments[0]).toURL();
    System.out.println(
        ((HttpURLConnection) url.openConnection(Proxy.NO_PROXY)).getResponseCode());
    HttpClient client =
        HttpClient.newBuilder().proxy(HttpClient.Builder.NO_PROXY).build();
    HttpRequest request = HttpRequest.newBuilder(URI.create(arguments[1])).build();
    System.out.println(
        client.send(request, HttpResponse.BodyHandlers.ofString()).statusCode());
    // Not HTTP: a server that speaks first.
    try (ServerSocket server = new ServerSocket(0);
        Socket socket = new Socket("localhost", server.getLocalPort());
        Socket accepted = server.accept()) {
      accepted.getOutputStream().write(42);
      System.out.println(socket.getInputStream().read());
    }
  }
}
