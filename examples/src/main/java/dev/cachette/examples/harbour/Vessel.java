// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.harbour;

/**
 * A vessel that wants to arrive.
 *
 * @param draught its draught, in metres
 */
public record Vessel(String name, double draught) {}
