// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * A proxy, HTTP and SOCKS 5, that wants to know who asks, and takes everybody to one and the same
 * port of this machine.
 */
final class GuardedProxy implements AutoCloseable {

  static final String USER = "pilot";
  static final String PASSWORD = "low water";

  private final ServerSocket listening = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
  private final InetSocketAddress service;
  private final AtomicInteger let = new AtomicInteger();

  GuardedProxy(InetSocketAddress service) throws IOException {
    this.service = service;
    start(this::accept);
  }

  InetSocketAddress address() {
    return (InetSocketAddress) listening.getLocalSocketAddress();
  }

  /** Returns how many were let through. */
  int letThrough() {
    return let.get();
  }

  private void accept() throws IOException {
    while (true) {
      Socket client = listening.accept();
      start(() -> serve(client));
    }
  }

  private void serve(Socket client) throws IOException {
    try (client;
        Socket onward = new Socket()) {
      DataInputStream in = new DataInputStream(client.getInputStream());
      int first = in.readUnsignedByte();
      byte[] toPassOn = first == 5 ? socks(in, client.getOutputStream()) : http(first, client);
      if (toPassOn == null) {
        return;
      }
      let.incrementAndGet();
      onward.connect(service);
      onward.getOutputStream().write(toPassOn);
      start(() -> onward.getInputStream().transferTo(client.getOutputStream()));
      in.transferTo(onward.getOutputStream());
    }
  }

  /** RFC 1928, with a password by RFC 1929. */
  private static byte[] socks(DataInputStream in, OutputStream out) throws IOException {
    in.skipNBytes(in.readUnsignedByte());
    out.write(new byte[] {5, 2});
    in.readUnsignedByte();
    String user = new String(in.readNBytes(in.readUnsignedByte()), StandardCharsets.UTF_8);
    String password = new String(in.readNBytes(in.readUnsignedByte()), StandardCharsets.UTF_8);
    if (!user.equals(USER) || !password.equals(PASSWORD)) {
      out.write(new byte[] {1, 1});
      return null;
    }
    out.write(new byte[] {1, 0});
    in.skipNBytes(4);
    in.skipNBytes(in.readUnsignedByte() + 2);
    out.write(new byte[] {5, 0, 0, 1, 127, 0, 0, 1, 0, 80});
    return new byte[0];
  }

  private static byte[] http(int first, Socket client) throws IOException {
    ByteArrayOutputStream head = new ByteArrayOutputStream();
    head.write(first);
    InputStream in = client.getInputStream();
    while (!head.toString(StandardCharsets.US_ASCII).endsWith("\r\n\r\n")) {
      head.write(in.read());
    }
    String text = head.toString(StandardCharsets.US_ASCII);
    String wanted =
        Base64.getEncoder()
            .encodeToString((USER + ":" + PASSWORD).getBytes(StandardCharsets.UTF_8));
    if (!text.toLowerCase().contains("proxy-authorization: basic " + wanted.toLowerCase())) {
      client
          .getOutputStream()
          .write(
              "HTTP/1.1 407 Who are you\r\ncontent-length: 0\r\n\r\n"
                  .getBytes(StandardCharsets.US_ASCII));
      return null;
    }
    if (!text.startsWith("CONNECT ")) {
      return head.toByteArray();
    }
    client
        .getOutputStream()
        .write("HTTP/1.1 200 Go on\r\n\r\n".getBytes(StandardCharsets.US_ASCII));
    return new byte[0];
  }

  private interface Work {
    void run() throws IOException;
  }

  private static void start(Work work) {
    Thread thread =
        new Thread(
            () -> {
              try {
                work.run();
              } catch (IOException over) {
                // One of both has hung up, or the test is over.
              }
            });
    thread.setDaemon(true);
    thread.start();
  }

  @Override
  public void close() throws IOException {
    listening.close();
  }
}
