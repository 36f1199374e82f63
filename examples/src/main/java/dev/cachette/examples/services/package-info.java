/**
 * The services of Marrow Bay, as small real servers on this machine: what cassettes are recorded
 * from in the demo and the tests, as a user records from a staging system. They take their time,
 * say another date and another identifier in each answer, and want a key.
 */
@NullMarked
package dev.cachette.examples.services;

import org.jspecify.annotations.NullMarked;
