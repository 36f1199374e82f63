// SPDX-License-Identifier: Apache-2.0
package dev.cachette.replay;

/**
 * One difference between a case and what the application does now.
 *
 * @param kind the kind of difference
 * @param call the call that it is about: {@code POST https://berths.example/v1/bookings}
 * @param place where it differs: {@code status}, {@code header location}, {@code body $.berth};
 *     empty for the whole call
 * @param expected what was captured
 * @param actual what the application does now
 * @param cause the cause, if one is known; else empty
 */
public record CaseFinding(
    Kind kind, String call, String place, String expected, String actual, String cause) {

  /** The kinds of difference. */
  public enum Kind {
    /** The application does not answer an incoming call. */
    NO_RESPONSE("No response"),
    /** Its response differs. */
    RESPONSE("The response differs"),
    /** It makes an outgoing call with another content. */
    CALL_CHANGED("An outgoing call differs"),
    /** It does not make an outgoing call. */
    CALL_MISSING("An outgoing call is missing"),
    /** It makes an outgoing call that was not captured. */
    CALL_NEW("An outgoing call is new");

    private final String words;

    Kind(String words) {
      this.words = words;
    }

    /** Returns it in words. */
    @Override
    public String toString() {
      return words;
    }
  }

  /** Returns it in one line. */
  public String summary() {
    String where = place.isEmpty() ? "" : ", " + place;
    String values =
        expected.isEmpty() && actual.isEmpty()
            ? ""
            : ": expected " + expected + ", actual " + actual;
    return kind + ": " + call + where + values;
  }
}
