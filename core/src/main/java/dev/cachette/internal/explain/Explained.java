// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.explain;

import dev.cachette.result.ClosestStub;
import java.util.List;

/**
 * Why nothing answers a call.
 *
 * @param text in words
 * @param closest the closest stubs, the closest first
 */
public record Explained(String text, List<ClosestStub> closest) {

  /** Returns an explanation in which stubs have no part. */
  public static Explained of(String text) {
    return new Explained(text, List.of());
  }

  /** Returns it with a remark. */
  public Explained and(String remark) {
    return new Explained(text + remark, closest);
  }
}
