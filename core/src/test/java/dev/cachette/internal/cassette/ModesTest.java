package dev.cachette.internal.cassette;

import static dev.cachette.cassette.Recording.CREATE;
import static dev.cachette.cassette.Recording.EXTEND;
import static dev.cachette.cassette.Recording.REPLAY;
import static dev.cachette.cassette.Recording.REWRITE;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.cassette.Recording;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class ModesTest {

  private static final Optional<String> NONE = Optional.empty();
  private static final Optional<String> CI = Optional.of("true");

  @Test
  void inCiNothingIsRecordedUnlessTheTestSaysSo() {
    assertEquals(CREATE, Modes.of(CREATE, false, NONE, NONE, NONE));
    assertEquals(CREATE, Modes.of(CREATE, false, NONE, NONE, Optional.of("false")));
    assertEquals(REPLAY, Modes.of(CREATE, false, NONE, NONE, CI));
    assertEquals(REPLAY, Modes.of(EXTEND, false, NONE, NONE, CI));
    assertEquals(EXTEND, Modes.of(EXTEND, true, NONE, NONE, CI));
    assertEquals(REWRITE, Modes.of(REWRITE, false, NONE, NONE, CI));
  }

  @Test
  void anOverrideWinsThePropertyFirst() {
    assertEquals(REWRITE, Modes.of(REPLAY, false, NONE, Optional.of("rewrite"), CI));
    assertEquals(EXTEND, Modes.of(REPLAY, false, Optional.of(" Extend "), Optional.of("x"), CI));
    assertEquals(REPLAY, Modes.of(REPLAY, false, Optional.of(""), Optional.of(" "), NONE));
  }

  @Test
  void anOverrideThatIsNoneNamesWhereItIsAndWhatItCanBe() {
    String said =
        assertThrows(
                IllegalArgumentException.class,
                () -> Modes.of(Recording.CREATE, false, NONE, Optional.of("REDO"), NONE))
            .getMessage();
    assertTrue(said.contains("CACHETTE_RECORDING is \"REDO\""), said);
    assertTrue(said.contains("[CREATE, REPLAY, EXTEND, REWRITE]"), said);
  }
}
