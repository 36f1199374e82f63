// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import io.netty.buffer.ByteBufAllocator;
import io.netty.channel.DefaultChannelId;
import io.netty.util.ResourceLeakDetector;
import java.util.Map;

/**
 * Engine defaults for tests rather than services: it starts in every test JVM, and needs neither
 * pooled memory nor unique machine identifiers. The engine reads them from system properties, once;
 * they are set for that moment only. The engine is relocated into our jar, so these names are ours
 * alone.
 */
final class EngineDefaults {

  private static final Map<String, String> PROPERTIES =
      Map.of(
          "io.netty.allocator.type", "unpooled",
          "io.netty.leakDetection.level", "disabled",
          "io.netty.machineId", "00:00:00:00:00:00",
          "io.netty.processId", "1");

  private static boolean applied;

  private EngineDefaults() {}

  static synchronized void apply() {
    if (applied) {
      return;
    }
    applied = true;
    EngineLog.install();
    PROPERTIES.forEach(System::setProperty);
    try {
      ByteBufAllocator.DEFAULT.isDirectBufferPooled();
      ResourceLeakDetector.isEnabled();
      DefaultChannelId.newInstance();
    } finally {
      PROPERTIES.keySet().forEach(System::clearProperty);
    }
  }
}
