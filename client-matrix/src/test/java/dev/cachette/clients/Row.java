// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static dev.cachette.clients.Protocol.HTTP;
import static dev.cachette.clients.Protocol.HTTPS;
import static dev.cachette.clients.Protocol.HTTP_2;
import static dev.cachette.clients.Protocol.HTTP_2_CLEAR;

import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;

/**
 * A client of the matrix.
 *
 * @param name what it is called in the table
 * @param protocols what it can speak
 * @param note why it does not speak the others, or what is special about it
 * @param least the first Java release it runs on
 * @param factory makes one
 */
record Row(String name, Set<Protocol> protocols, String note, int least, Factory factory) {

  private static final String NO_HTTP_2 = "speaks no HTTP/2";
  private static final String NO_CLEAR = "HTTP/2 by TLS only";

  /** Makes a client that speaks one protocol. */
  @FunctionalInterface
  interface Factory {

    HarbourClient create(Protocol protocol) throws Exception;
  }

  HarbourClient create(Protocol protocol) throws Exception {
    return factory.create(protocol);
  }

  boolean runsHere() {
    return Runtime.version().feature() >= least;
  }

  static List<Row> all() {
    return Stream.of(OF_THE_JDK, APACHE, OKHTTP, NETTY, WRAPPERS).flatMap(List::stream).toList();
  }

  static Row named(String name) {
    return all().stream().filter(row -> row.name.equals(name)).findFirst().orElseThrow();
  }

  private static final List<Row> OF_THE_JDK =
      List.of(
          overTls("JDK HttpClient", JdkClients::blocking),
          overTls("JDK HttpClient, async", JdkClients::async),
          plain("HttpURLConnection", JdkClients::urlConnection));

  private static final List<Row> APACHE =
      List.of(
          plain("Apache HttpClient 4", ApacheClients::classic4),
          plain("Apache HttpAsyncClient 4", ApacheClients::async4),
          plain("Apache HttpClient 5, classic", ApacheClients::classic5),
          full("Apache HttpClient 5, async", ApacheClients::async5));

  private static final List<Row> OKHTTP =
      List.of(
          full("OkHttp 4", OkHttp4::create),
          full("OkHttp 5", OkHttpClients::create),
          full("Retrofit 3 (OkHttp)", OkHttpClients::retrofit));

  private static final List<Row> NETTY =
      List.of(
          full("Reactor Netty (NIO)", ReactorClients::nio),
          full("Reactor Netty (epoll)", ReactorClients::nativeTransport),
          full("Spring WebClient (Reactor Netty)", ReactorClients::webClient),
          full("Vert.x 5 web client (NIO)", VertxClients::nio),
          full("Vert.x 5 web client (native)", VertxClients::nativeTransport),
          full("AsyncHttpClient 3 (NIO)", AsyncHttpClients::nio),
          full("AsyncHttpClient 3 (native)", AsyncHttpClients::nativeTransport),
          full("Armeria", ArmeriaClients::create),
          full("AWS SDK 2, Netty", AwsClients::netty));

  private static final List<Row> WRAPPERS =
      List.of(
          plain("AWS SDK 2, Apache", AwsClients::apache),
          plain("AWS SDK 2, URL connection", AwsClients::urlConnection),
          full("Jetty 12 client", JettyClients::create),
          overTls("Spring RestClient (JDK HttpClient)", WrappingClients::restClient),
          plain("Feign", WrappingClients::feign),
          plain("Google HTTP client", WrappingClients::google),
          new Row(
              "Unirest (JDK HttpClient)",
              EnumSet.of(HTTP, HTTPS),
              "stays with HTTP/1.1, whatever version it is set to",
              17,
              WrappingClients::unirest),
          plain("Jersey client", WrappingClients::jersey),
          new Row(
              "Helidon 4 web client",
              EnumSet.of(HTTP, HTTPS),
              "needs Java 21; its HTTP/2 is a module of its own",
              21,
              HelidonClients::create));

  private static Row plain(String name, Factory factory) {
    return new Row(name, EnumSet.of(HTTP, HTTPS), NO_HTTP_2, 17, factory);
  }

  private static Row overTls(String name, Factory factory) {
    return new Row(name, EnumSet.of(HTTP, HTTPS, HTTP_2), NO_CLEAR, 17, factory);
  }

  private static Row full(String name, Factory factory) {
    return new Row(name, EnumSet.of(HTTP, HTTPS, HTTP_2, HTTP_2_CLEAR), "", 17, factory);
  }

  @Override
  public String toString() {
    return name;
  }
}
