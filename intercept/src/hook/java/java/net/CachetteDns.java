package java.net;

import java.lang.reflect.InvocationTargetException;
import java.util.ArrayList;
import java.util.List;

/**
 * Answers the DNS queries (RFC 1035) of Netty's resolver, which some clients ask for records instead
 * of addresses. Netty's classes are reached by reflection, in whatever copy the question belongs to.
 */
final class CachetteDns {

  private static final String PACKAGE = "handler.codec.dns.";
  private static final String ADDRESS = "A";

  /** Seconds. The address is for one session, so clients should not keep it. */
  private static final long TIME_TO_LIVE = 0;

  private static final int PORT = 53;

  private CachetteDns() {}

  /**
   * Returns the response to a question, the exception that it fails with, or null to ask the network.
   */
  static Object answer(Object question) {
    try {
      Class<?> type = Class.forName(packageOf(question) + "DnsQuestion", false, loader(question));
      String name = (String) type.getMethod("name").invoke(question);
      String host = name.endsWith(".") ? name.substring(0, name.length() - 1) : name;
      Object kind = type.getMethod("type").invoke(question);
      if (!ADDRESS.equals(kind.getClass().getMethod("name").invoke(kind))) {
        return CachetteHook.intercepts(host) ? response(question, name, kind, List.of()) : null;
      }
      Object found = CachetteHook.resolution(host);
      if (found instanceof InetAddress[] addresses) {
        return response(question, name, kind, List.of(addresses));
      }
      return found == null ? null : response(question, name, kind, null);
    } catch (InvocationTargetException failed) {
      return failed.getCause();
    } catch (ReflectiveOperationException other) {
      return new UnknownHostException("Cachette cannot answer " + question + ": " + other);
    }
  }

  /** Returns a response with these addresses; null if there is no such host. */
  private static Object response(
      Object question, String name, Object kind, List<InetAddress> addresses)
      throws ReflectiveOperationException {
    String dns = packageOf(question);
    ClassLoader loader = loader(question);
    InetSocketAddress server = new InetSocketAddress(InetAddress.getLoopbackAddress(), PORT);
    Class<?> type = Class.forName(dns + "DatagramDnsResponse", true, loader);
    Object response =
        type.getConstructor(InetSocketAddress.class, InetSocketAddress.class, int.class)
            .newInstance(server, server, 1);
    type.getMethod("setAuthoritativeAnswer", boolean.class).invoke(response, true);
    if (addresses == null) {
      Class<?> code = Class.forName(dns + "DnsResponseCode", true, loader);
      Object noSuchHost = code.getField("NXDOMAIN").get(null);
      type.getMethod("setCode", code).invoke(response, noSuchHost);
      return response;
    }
    Class<?> section = Class.forName(dns + "DnsSection", true, loader);
    Class<?> record = Class.forName(dns + "DnsRecord", true, loader);
    for (Object each : records(question, name, kind, addresses)) {
      type.getMethod("addRecord", section, record)
          .invoke(response, section.getField("ANSWER").get(null), each);
    }
    return response;
  }

  private static List<Object> records(
      Object question, String name, Object kind, List<InetAddress> addresses)
      throws ReflectiveOperationException {
    String dns = packageOf(question);
    ClassLoader loader = loader(question);
    String netty = dns.substring(0, dns.length() - PACKAGE.length());
    Class<?> buffer = Class.forName(netty + "buffer.ByteBuf", true, loader);
    Class<?> buffers = Class.forName(netty + "buffer.Unpooled", true, loader);
    Class<?> recordType = Class.forName(dns + "DnsRecordType", true, loader);
    List<Object> records = new ArrayList<>();
    for (InetAddress address : addresses) {
      Object content =
          buffers.getMethod("wrappedBuffer", byte[].class).invoke(null, (Object) address.getAddress());
      records.add(
          Class.forName(dns + "DefaultDnsRawRecord", true, loader)
              .getConstructor(String.class, recordType, long.class, buffer)
              .newInstance(name, kind, TIME_TO_LIVE, content));
    }
    return records;
  }

  /** Returns the package with a dot at its end; the class may be one of the user's. */
  private static String packageOf(Object question) throws ClassNotFoundException {
    for (Class<?> type = question.getClass(); type != null; type = type.getSuperclass()) {
      int end = type.getName().indexOf(PACKAGE);
      if (end >= 0) {
        return type.getName().substring(0, end + PACKAGE.length());
      }
    }
    throw new ClassNotFoundException("a class of Netty");
  }

  private static ClassLoader loader(Object question) {
    return question.getClass().getClassLoader();
  }
}
