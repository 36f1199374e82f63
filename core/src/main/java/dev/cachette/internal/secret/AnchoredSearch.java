// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.secret;

import java.util.List;
import java.util.regex.Matcher;

/**
 * Finds an expression in a text by what is in it or near it: to try it at each character of a long
 * text would take many times as long.
 */
final class AnchoredSearch {

  private final Matcher matcher;
  private final MarkedText text;
  private final List<String> anchors;
  private final int lead;

  /** By anchor: where it occurs next; -1 if it does not. */
  private final int[] next;

  private int from;

  /**
   * Creates a search.
   *
   * @param anchors in lower case; if there are none, all of the text is searched
   * @param lead an anchor is at most so many characters behind the beginning of a match
   */
  AnchoredSearch(Matcher matcher, MarkedText text, List<String> anchors, int lead) {
    this.matcher = matcher;
    this.text = text;
    this.anchors = anchors;
    this.lead = lead;
    this.next = new int[anchors.size()];
    for (int at = 0; at < next.length; at++) {
      next[at] = text.lowerCase().indexOf(anchors.get(at));
    }
    matcher.useTransparentBounds(true).useAnchoringBounds(false);
  }

  /** Finds the next match, after the last one. */
  boolean find() {
    boolean found = anchors.isEmpty() ? matcher.find() : findNearAnchor();
    from = found ? matcher.end() : from;
    return found;
  }

  private boolean findNearAnchor() {
    int length = text.text().length();
    for (int anchor = anchor(from); anchor >= 0; anchor = anchor(anchor + 1)) {
      for (int start = Math.max(from, anchor - lead); start <= anchor; start++) {
        if (matcher.region(start, length).lookingAt()) {
          return true;
        }
      }
    }
    return false;
  }

  /** Returns the first place of an anchor from here on; -1 if there is none. */
  private int anchor(int first) {
    int nearest = -1;
    for (int at = 0; at < next.length; at++) {
      if (next[at] >= 0 && next[at] < first) {
        next[at] = text.lowerCase().indexOf(anchors.get(at), first);
      }
      if (next[at] >= 0 && (nearest < 0 || next[at] < nearest)) {
        nearest = next[at];
      }
    }
    return nearest;
  }
}
