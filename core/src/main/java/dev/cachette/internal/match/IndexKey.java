// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.match;

import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * The parts of a request line that an index can look up.
 *
 * @param exact method, origin and path in one key, if each is exact
 * @param methods its methods; none for any
 * @param origin its origin, if it has exactly one
 * @param segments the leading path segments without a variable
 * @param whole whether these are the whole path
 */
public record IndexKey(
    Optional<String> exact,
    Set<String> methods,
    Optional<String> origin,
    List<String> segments,
    boolean whole) {}
