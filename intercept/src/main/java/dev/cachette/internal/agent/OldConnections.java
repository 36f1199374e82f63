// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.agent;

import java.lang.reflect.InvocationTargetException;
import java.net.InetSocketAddress;
import java.net.SocketAddress;
import java.util.Arrays;
import java.util.Map;
import java.util.function.Predicate;

/**
 * Connections to the real network that were made before interception began, and that clients may
 * keep in pools: the hook tracks them. They are ended so that no call uses them. Both directions
 * are shut down, which looks like a server that closed the connection; closing the sockets makes
 * some clients hang.
 */
final class OldConnections {

  private final HookHolder holder;

  OldConnections(HookHolder holder) {
    this.holder = holder;
  }

  void end(Predicate<InetSocketAddress> wanted) {
    for (Map.Entry<Object, SocketAddress> known : holder.connections().entrySet()) {
      if (known.getValue() instanceof InetSocketAddress address && wanted.test(address)) {
        end(known.getKey());
      }
    }
  }

  void end(Object connection) {
    if (connection.getClass().getName().endsWith("HeadContext")) {
      closeChannelOf(connection);
    } else {
      holder.shutDown(connection);
    }
  }

  /** {@code context.channel().close()}, in any copy of Netty. */
  private static void closeChannelOf(Object context) {
    try {
      Object channel = call(context, "ChannelHandlerContext", "channel");
      call(channel, "ChannelOutboundInvoker", "close");
    } catch (ReflectiveOperationException other) {
      throw new IllegalStateException("a connection of an unknown version of Netty is open", other);
    }
  }

  private static Object call(Object target, String interfaceName, String method)
      throws ReflectiveOperationException {
    for (Class<?> type = target.getClass(); type != null; type = type.getSuperclass()) {
      for (Class<?> implemented : type.getInterfaces()) {
        Class<?> found = find(implemented, interfaceName);
        if (found != null) {
          try {
            return found.getMethod(method).invoke(target);
          } catch (InvocationTargetException thrown) {
            throw new IllegalStateException(thrown.getCause());
          }
        }
      }
    }
    throw new NoSuchMethodException(interfaceName + "." + method);
  }

  private static Class<?> find(Class<?> type, String simpleName) {
    return type.getSimpleName().equals(simpleName)
        ? type
        : Arrays.stream(type.getInterfaces())
            .map(parent -> find(parent, simpleName))
            .filter(found -> found != null)
            .findFirst()
            .orElse(null);
  }
}
