// SPDX-License-Identifier: Apache-2.0
package dev.cachette.clients;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.io.RandomAccessFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.condition.DisabledIfSystemProperty;
import org.junit.jupiter.api.io.TempDir;

/** One GiB down and up again, in a JVM with 64 MiB. */
@DisabledIfSystemProperty(named = "matrix.few", matches = "true")
class LargeBodiesTest {

  private static final long SIZE = 1L << 30;

  @Test
  @Timeout(180)
  void areNeverHeldInMemory(@TempDir Path folder) throws Exception {
    Path down = folder.resolve("down.bin");
    Path up = folder.resolve("up.bin");
    try (RandomAccessFile sparse = new RandomAccessFile(down.toFile(), "rw")) {
      sparse.setLength(SIZE);
    }

    String said =
        Jvm.run(Jvm.command(List.of("-Xmx64m"), LargeBodies.class, down.toString(), up.toString()));

    assertEquals("down " + SIZE + ", up 201\n", said);
    assertEquals(SIZE, Files.size(up));
  }
}
