// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dev.cachette.Cachette;
import dev.cachette.cases.Capture;
import dev.cachette.control.CaseControl;
import dev.cachette.control.ControlPort;
import dev.cachette.control.Controlled;
import dev.cachette.control.ControlledSessions;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.Optional;

/** The control port of a capture or a replay, if one is wanted. */
final class CapturePort implements AutoCloseable {

  private final Optional<ControlPort> port;

  private CapturePort(Optional<ControlPort> port) {
    this.port = port;
  }

  /** Opens that of a capture. */
  static CapturePort open(ControlOptions options, Capture capture, Output output) {
    return open(options, capture.net(), new Captured(capture), output);
  }

  /** Opens one that shows the calls of a Cachette, and cases. */
  static CapturePort open(ControlOptions options, Cachette net, CaseControl cases, Output output) {
    options.check(false);
    if (!options.isWanted()) {
      return new CapturePort(Optional.empty());
    }
    ControlledSessions none =
        new ControlledSessions(
            () -> {
              throw new IllegalStateException("There are no sessions here.");
            });
    ControlPort opened =
        options
            .port(
                new Controlled(net),
                none,
                new InetSocketAddress(InetAddress.getLoopbackAddress(), options.number()))
            .cases(cases);
    options.open(opened, output);
    return new CapturePort(Optional.of(opened));
  }

  /** Returns true if it is open. */
  boolean isOpen() {
    return port.isPresent();
  }

  @Override
  public void close() {
    port.ifPresent(ControlPort::close);
  }

  /** The cases of a capture. */
  private record Captured(Capture capture) implements CaseControl {

    private static final ObjectMapper MAPPER = new ObjectMapper();

    @Override
    public JsonNode cases() {
      return MAPPER.valueToTree(capture.cases().stream().map(CaseJson::of).toList());
    }

    @Override
    public void rename(long number, String name) {
      capture.rename(number, name);
    }

    @Override
    public void drop(long number) {
      capture.drop(number);
    }

    @Override
    public void markVarying(long number, String place) {
      capture.markVarying(number, place);
    }
  }
}
