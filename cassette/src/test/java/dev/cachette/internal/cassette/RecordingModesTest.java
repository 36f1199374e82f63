// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.cassette;

import static dev.cachette.cassette.RecordingMode.CREATE;
import static dev.cachette.cassette.RecordingMode.EXTEND;
import static dev.cachette.cassette.RecordingMode.REPLAY;
import static dev.cachette.cassette.RecordingMode.REWRITE;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.cassette.RecordingMode;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class RecordingModesTest {

  private static final Optional<String> NONE = Optional.empty();
  private static final Optional<String> CI = Optional.of("true");

  @Test
  void inCiNothingIsRecordedUnlessTheTestAllowsIt() {
    assertEquals(CREATE, RecordingModes.of(CREATE, false, NONE, NONE, NONE));
    assertEquals(CREATE, RecordingModes.of(CREATE, false, NONE, NONE, Optional.of("false")));
    assertEquals(REPLAY, RecordingModes.of(CREATE, false, NONE, NONE, CI));
    assertEquals(REPLAY, RecordingModes.of(EXTEND, false, NONE, NONE, CI));
    assertEquals(EXTEND, RecordingModes.of(EXTEND, true, NONE, NONE, CI));
    assertEquals(REWRITE, RecordingModes.of(REWRITE, false, NONE, NONE, CI));
  }

  @Test
  void anOverrideWinsThePropertyFirst() {
    assertEquals(REWRITE, RecordingModes.of(REPLAY, false, NONE, Optional.of("rewrite"), CI));
    assertEquals(
        EXTEND, RecordingModes.of(REPLAY, false, Optional.of(" Extend "), Optional.of("x"), CI));
    assertEquals(REPLAY, RecordingModes.of(REPLAY, false, Optional.of(""), Optional.of(" "), NONE));
  }

  @Test
  void anOverrideThatIsNoneNamesWhereItIsAndWhatItCanBe() {
    String said =
        assertThrows(
                IllegalArgumentException.class,
                () ->
                    RecordingModes.of(RecordingMode.CREATE, false, NONE, Optional.of("REDO"), NONE))
            .getMessage();
    assertTrue(said.contains("CACHETTE_RECORDING is \"REDO\""), said);
    assertTrue(said.contains("[CREATE, REPLAY, EXTEND, REWRITE]"), said);
  }
}
