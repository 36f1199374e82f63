package dev.cachette.internal.match;

import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * What of a request line an index can look up, and need not try.
 *
 * @param exact method, origin and path in one text, where only one of each fits
 * @param methods the methods that it is for; none if for any
 * @param origin the one origin that it is for, if it is for one
 * @param segments the leading path segments without a variable
 * @param whole whether these are the whole path
 */
public record IndexKey(
    Optional<String> exact,
    Set<String> methods,
    Optional<String> origin,
    List<String> segments,
    boolean whole) {}
