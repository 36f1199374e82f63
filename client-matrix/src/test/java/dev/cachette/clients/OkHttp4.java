// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import java.io.File;
import java.io.IOException;
import java.lang.reflect.Constructor;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;

/** OkHttp 4, in a class loader of its own, as it cannot be on one classpath with OkHttp 5. */
final class OkHttp4 {

  private static final Path JARS = Path.of("target/okhttp4");
  private static final Map<String, URLClassLoader> LOADER = new ConcurrentHashMap<>();

  private OkHttp4() {}

  static HarbourClient create(Protocol protocol) throws Exception {
    Class<?> clients =
        LOADER.computeIfAbsent("", key -> loader()).loadClass(Clients.class.getName());
    Constructor<?> constructor = clients.getDeclaredConstructor(String.class);
    constructor.setAccessible(true);
    Object client = constructor.newInstance(protocol.name());
    Method call = clients.getDeclaredMethod("call", String.class, String.class, String.class);
    call.setAccessible(true);
    HarbourClient calling =
        (method, url, body) -> {
          try {
            Object[] got = (Object[]) call.invoke(client, method, url, body.orElse(null));
            return HarbourClient.Reply.of((Integer) got[0], (byte[]) got[1]);
          } catch (InvocationTargetException thrown) {
            throw (Exception) thrown.getCause();
          }
        };
    return calling;
  }

  private static URLClassLoader loader() {
    List<URL> urls = new ArrayList<>();
    try (Stream<Path> jars = Files.list(JARS)) {
      for (Path jar : jars.toList()) {
        urls.add(jar.toUri().toURL());
      }
      for (String entry : System.getProperty("java.class.path").split(File.pathSeparator)) {
        if (!entry.contains("okhttp")) {
          urls.add(Path.of(entry).toUri().toURL());
        }
      }
    } catch (IOException unreadable) {
      throw new IllegalStateException(unreadable);
    }
    return new URLClassLoader(urls.toArray(URL[]::new), ClassLoader.getPlatformClassLoader());
  }

  /** Loaded by the other class loader; uses types that both class loaders share. */
  static final class Clients {

    private final HarbourClient client;

    Clients(String protocol) {
      client = OkHttpClients.create(Protocol.valueOf(protocol));
    }

    Object[] call(String method, String url, String body) throws Exception {
      HarbourClient.Reply reply = client.call(method, url, Optional.ofNullable(body));
      return new Object[] {reply.status(), reply.bytes()};
    }
  }
}
