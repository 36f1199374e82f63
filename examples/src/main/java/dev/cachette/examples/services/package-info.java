/**
 * The services of Marrow Bay, as small real servers on this machine: the demo and the tests record
 * cassettes from them, as a user would from a staging system. They take their time, return a new
 * date and identifier in each answer, and require a key.
 */
@NullMarked
package dev.cachette.examples.services;

import org.jspecify.annotations.NullMarked;
