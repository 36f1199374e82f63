// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.harbour;

import java.util.List;

/**
 * The tides of a day.
 *
 * @param station the station
 * @param high the times of high water, as {@code HH:mm}
 */
public record Tides(String station, List<String> high) {}
