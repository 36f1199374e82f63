// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import java.util.Map;
import java.util.Optional;

/** Ports of protocols other than HTTP, registered with IANA or by convention. */
final class OtherProtocols {

  private static final Map<Integer, String> AT_PORT =
      Map.ofEntries(
          Map.entry(21, "FTP"),
          Map.entry(22, "SSH"),
          Map.entry(23, "Telnet"),
          Map.entry(25, "SMTP"),
          Map.entry(53, "DNS"),
          Map.entry(110, "POP3"),
          Map.entry(143, "IMAP"),
          Map.entry(389, "LDAP"),
          Map.entry(465, "SMTP"),
          Map.entry(587, "SMTP"),
          Map.entry(636, "LDAP"),
          Map.entry(993, "IMAP"),
          Map.entry(995, "POP3"),
          Map.entry(1433, "SQL Server"),
          Map.entry(1521, "Oracle Database"),
          Map.entry(1883, "MQTT"),
          Map.entry(2181, "ZooKeeper"),
          Map.entry(3306, "MySQL"),
          Map.entry(5432, "PostgreSQL"),
          Map.entry(5672, "AMQP"),
          Map.entry(6379, "Redis"),
          Map.entry(9042, "Cassandra"),
          Map.entry(9092, "Kafka"),
          Map.entry(11211, "memcached"),
          Map.entry(27017, "MongoDB"),
          Map.entry(61616, "ActiveMQ"));

  private OtherProtocols() {}

  /** Returns the protocol of a port, if it is not HTTP. */
  static Optional<String> at(int port) {
    return Optional.ofNullable(AT_PORT.get(port));
  }

  /** Returns why a connection is refused. */
  static String explanation(String host, int port, String protocol) {
    return String.format(
        "A connection to %s:%d, the port of %s, was refused: while Cachette is open, nothing leaves"
            + " this machine.\n\n"
            + "Fix: net.letThrough(\"%s:%d\"), if the test is meant to reach it; a stub for"
            + " http://%s:%d, if it is HTTP; or a local server, which is not intercepted.\n",
        host, port, protocol, host, port, host, port);
  }
}
