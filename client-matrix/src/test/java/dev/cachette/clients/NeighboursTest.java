// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static dev.cachette.Factories.*;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.framework;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.mockStatic;
import static org.mockito.Mockito.when;

import dev.cachette.Cachette;
import io.netty.util.Version;
import java.net.InetAddress;
import java.net.Socket;
import java.nio.channels.SocketChannel;
import org.junit.jupiter.api.Test;
import org.mockito.MockedStatic;
import org.objectweb.asm.ClassReader;

/** Other agents and libraries in the JVM of a test. */
class NeighboursTest {

  @Test
  void mocksOfTheClassesThatAreWovenToo() throws Exception {
    try (Cachette net = Cachette.open();
        HarbourClient client = Row.named("HttpURLConnection").create(Protocol.HTTPS)) {
      net.stub("GET https://tides.example/v1").answer(text("high"));
      assertEquals("high", client.get("https://tides.example/v1").body());

      Socket socket = mock(Socket.class);
      when(socket.getPort()).thenReturn(7);
      assertEquals(7, socket.getPort());
      mock(SocketChannel.class);
      InetAddress address = mock(InetAddress.class);
      when(address.getHostName()).thenReturn("mocked.example");
      assertEquals("mocked.example", address.getHostName());
      try (MockedStatic<InetAddress> names = mockStatic(InetAddress.class)) {
        names.when(() -> InetAddress.getByName(anyString())).thenReturn(address);
        assertEquals(address, InetAddress.getByName("tides.example"));
      }
      assertEquals("high", client.get("https://tides.example/v1").body());
      framework().clearInlineMocks();
      assertEquals("high", client.get("https://tides.example/v1").body());
    }
  }

  @Test
  void otherVersionsOfTheLibrariesWeUse() throws Exception {
    // This ASM refuses the class files of this JVM's own release, ours must not be this one.
    byte[] today = {
      (byte) 0xca, (byte) 0xfe, (byte) 0xba, (byte) 0xbe, 0, 0, 0, 61, 0, 1, 0, 0, 0, 0, 0, 0
    };
    assertThrows(IllegalArgumentException.class, () -> new ClassReader(today));
    assertEquals("4.2.18.Final", Version.identify().get("netty-common").artifactVersion());

    try (Cachette net = Cachette.open();
        HarbourClient client = Row.named("OkHttp 5").create(Protocol.HTTPS)) {
      net.stub("GET https://tides.example/v1").answer(text("high"));
      assertEquals("high", client.get("https://tides.example/v1").body());
    }
  }
}
