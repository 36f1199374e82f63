package dev.cachette.internal.agent;

import java.util.List;
import java.util.function.Predicate;
import org.objectweb.asm.MethodVisitor;

/**
 * A method of the JDK with a hook at its beginning.
 *
 * @param className the class, with slashes
 * @param methodName the name of its method or methods
 * @param signature tells which of the overloads, by their descriptors
 * @param prologue writes the hook
 */
record WeavePoint(
    String className, String methodName, Predicate<String> signature, Prologue prologue) {

  /** The methods that every JDK from 17 on has; measured on 17 and 25. */
  static final List<WeavePoint> ALL =
      List.of(
          connect("sun/nio/ch/NioSocketImpl", "connect", "(Ljava/net/SocketAddress;I)V"),
          connect("sun/nio/ch/SocketChannelImpl", "connect", "(Ljava/net/SocketAddress;)Z"),
          connect(
              "sun/nio/ch/SocketChannelImpl", "blockingConnect", "(Ljava/net/SocketAddress;J)V"),
          connect(
              "sun/nio/ch/AsynchronousSocketChannelImpl",
              "connect",
              "(Ljava/net/SocketAddress;)Ljava/util/concurrent/Future;"),
          connect(
              "sun/nio/ch/AsynchronousSocketChannelImpl",
              "connect",
              "(Ljava/net/SocketAddress;Ljava/lang/Object;Ljava/nio/channels/CompletionHandler;)V"),
          // In front of the JDK's caches of names, unlike what it calls; its overloads differ.
          new WeavePoint(
              "java/net/InetAddress",
              "getAllByName0",
              descriptor ->
                  descriptor.startsWith("(Ljava/lang/String;")
                      && descriptor.endsWith(")[Ljava/net/InetAddress;"),
              Prologues::resolve),
          trust("Ljava/net/Socket;"),
          trust("Ljavax/net/ssl/SSLEngine;"));

  /** Writes instructions at the beginning of a method. */
  interface Prologue {
    void write(MethodVisitor method);
  }

  boolean isAt(String aClass, String aMethod, String descriptor) {
    return className.equals(aClass) && methodName.equals(aMethod) && signature.test(descriptor);
  }

  boolean isIn(String javaClassName) {
    return javaName().equals(javaClassName);
  }

  String javaName() {
    return className.replace('/', '.');
  }

  private static WeavePoint connect(String className, String method, String descriptor) {
    return new WeavePoint(className, method, descriptor::equals, Prologues::connect);
  }

  private static WeavePoint trust(String connection) {
    String descriptor =
        "([Ljava/security/cert/X509Certificate;Ljava/lang/String;" + connection + "Z)V";
    return new WeavePoint(
        "sun/security/ssl/X509TrustManagerImpl",
        "checkTrusted",
        descriptor::equals,
        Prologues::trust);
  }

  /** {@code java.net.InetAddress.getAllByName0}. */
  @Override
  public String toString() {
    return javaName() + "." + methodName;
  }
}
