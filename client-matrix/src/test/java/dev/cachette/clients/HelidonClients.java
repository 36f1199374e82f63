// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import dev.cachette.clients.HarbourClient.Reply;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.net.URI;
import java.util.Arrays;

/** Helidon's client, by reflection: its classes are of a later Java than this is compiled by. */
final class HelidonClients {

  private HelidonClients() {}

  static HarbourClient create(Protocol protocol) throws Exception {
    Class<?> type = Class.forName("io.helidon.webclient.api.WebClient");
    Object client = type.getMethod("create").invoke(null);
    Class<?> methodType = Class.forName("io.helidon.http.Method");
    return (method, url, body) -> {
      try {
        Object verb = methodType.getMethod("create", String.class).invoke(null, method);
        Object request = call(client, "method", verb);
        request = call(request, "uri", URI.create(url));
        Object response;
        if (body.isPresent()) {
          request =
              call(
                  request, "header", headerName("Content-Type"), new String[] {"application/json"});
          response = call(request, "submit", body.get());
        } else {
          response = call(request, "request");
        }
        int status = (Integer) call(call(response, "status"), "code");
        Object entity = call(response, "entity");
        boolean has = (Boolean) call(entity, "hasEntity");
        byte[] bytes = has ? (byte[]) call(entity, "as", byte[].class) : new byte[0];
        call(response, "close");
        return Reply.of(status, bytes);
      } catch (InvocationTargetException thrown) {
        throw thrown.getCause() instanceof Exception known ? known : thrown;
      }
    };
  }

  private static Object headerName(String name) throws Exception {
    return Class.forName("io.helidon.http.HeaderNames")
        .getMethod("create", String.class)
        .invoke(null, name);
  }

  private static Object call(Object target, String name, Object... arguments) throws Exception {
    for (Method method : target.getClass().getMethods()) {
      if (method.getName().equals(name) && fits(method, arguments)) {
        method.setAccessible(true);
        return method.invoke(target, arguments);
      }
    }
    throw new NoSuchMethodException(name + Arrays.toString(arguments));
  }

  private static boolean fits(Method method, Object... arguments) {
    Class<?>[] types = method.getParameterTypes();
    if (types.length != arguments.length) {
      return false;
    }
    for (int at = 0; at < types.length; at++) {
      if (!types[at].isInstance(arguments[at])) {
        return false;
      }
    }
    return true;
  }
}
