// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertInstanceOf;
import static org.junit.jupiter.api.Assertions.assertNotSame;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.Cachette;
import java.io.File;
import java.lang.reflect.InvocationTargetException;
import java.net.MalformedURLException;
import java.net.URL;
import java.net.URLClassLoader;
import java.util.Arrays;
import org.junit.jupiter.api.Test;

/** A second Cachette in the same JVM, from a class loader of its own, as frameworks make them. */
class OtherLoaderTest {

  @Test
  void sharesTheHooksAndTakesItsTurn() throws Exception {
    String url = "https://tides.example/v1";
    try (URLClassLoader loader = new URLClassLoader(classPath(), null);
        HarbourClient client = Row.named("HttpURLConnection").create(Protocol.HTTPS)) {
      Class<?> other = loader.loadClass(Cachette.class.getName());
      assertNotSame(Cachette.class, other);

      try (Cachette net = Cachette.open()) {
        net.stub("GET " + url).answer(text("ours"));
        var refused =
            assertThrows(
                InvocationTargetException.class, () -> other.getMethod("open").invoke(null));
        assertTrue(
            assertInstanceOf(IllegalStateException.class, refused.getCause())
                .getMessage()
                .startsWith("The Cachette opened at OtherLoaderTest.java:"));
        assertEquals("ours", client.get(url).body());
      }

      AutoCloseable theirs = (AutoCloseable) other.getMethod("open").invoke(null);
      assertEquals(501, client.get(url).status());
      var failure = assertThrows(Error.class, theirs::close);
      assertEquals("AssertionFailedError", failure.getClass().getSimpleName());
    }
    try (Cachette net = Cachette.open();
        HarbourClient client = Row.named("HttpURLConnection").create(Protocol.HTTPS)) {
      net.stub("GET " + url).answer(text("ours again"));
      assertEquals("ours again", client.get(url).body());
    }
  }

  private static URL[] classPath() {
    return Arrays.stream(System.getProperty("java.class.path").split(File.pathSeparator))
        .map(OtherLoaderTest::url)
        .toArray(URL[]::new);
  }

  private static URL url(String path) {
    try {
      return new File(path).toURI().toURL();
    } catch (MalformedURLException impossible) {
      throw new IllegalArgumentException(path, impossible);
    }
  }
}
