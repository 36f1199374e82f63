// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.wire;

import io.netty.util.internal.logging.AbstractInternalLogger;
import io.netty.util.internal.logging.InternalLogger;
import io.netty.util.internal.logging.InternalLoggerFactory;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The engine's own log: warnings and errors go to SLF4J, everything else is dropped. Start-up
 * messages do not belong in a test's log, and starting a logging library for them costs time.
 */
final class EngineLog extends InternalLoggerFactory {

  static void install() {
    InternalLoggerFactory.setDefaultFactory(new EngineLog());
  }

  @Override
  protected InternalLogger newInstance(String name) {
    return new WarningsOnly(name);
  }

  private static final class WarningsOnly extends AbstractInternalLogger {

    private static final long serialVersionUID = 1L;

    WarningsOnly(String name) {
      super(name);
    }

    private Logger target() {
      return LoggerFactory.getLogger(name());
    }

    @Override
    public boolean isWarnEnabled() {
      return true;
    }

    @Override
    public void warn(String message) {
      target().warn(message);
    }

    @Override
    public void warn(String format, Object argument) {
      target().warn(format, argument);
    }

    @Override
    public void warn(String format, Object... arguments) {
      target().warn(format, arguments);
    }

    @Override
    public void warn(String format, Object first, Object second) {
      target().warn(format, first, second);
    }

    @Override
    public void warn(String message, Throwable cause) {
      target().warn(message, cause);
    }

    @Override
    public boolean isErrorEnabled() {
      return true;
    }

    @Override
    public void error(String message) {
      target().error(message);
    }

    @Override
    public void error(String format, Object argument) {
      target().error(format, argument);
    }

    @Override
    public void error(String format, Object first, Object second) {
      target().error(format, first, second);
    }

    @Override
    public void error(String format, Object... arguments) {
      target().error(format, arguments);
    }

    @Override
    public void error(String message, Throwable cause) {
      target().error(message, cause);
    }

    @Override
    public boolean isTraceEnabled() {
      return false;
    }

    @Override
    public void trace(String message) {}

    @Override
    public void trace(String format, Object argument) {}

    @Override
    public void trace(String format, Object first, Object second) {}

    @Override
    public void trace(String format, Object... arguments) {}

    @Override
    public void trace(String message, Throwable cause) {}

    @Override
    public boolean isDebugEnabled() {
      return false;
    }

    @Override
    public void debug(String message) {}

    @Override
    public void debug(String format, Object argument) {}

    @Override
    public void debug(String format, Object first, Object second) {}

    @Override
    public void debug(String format, Object... arguments) {}

    @Override
    public void debug(String message, Throwable cause) {}

    @Override
    public boolean isInfoEnabled() {
      return false;
    }

    @Override
    public void info(String message) {}

    @Override
    public void info(String format, Object argument) {}

    @Override
    public void info(String format, Object first, Object second) {}

    @Override
    public void info(String format, Object... arguments) {}

    @Override
    public void info(String message, Throwable cause) {}
  }
}
