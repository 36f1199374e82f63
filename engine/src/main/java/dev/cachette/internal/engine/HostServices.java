// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.engine;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.util.function.Consumer;
import java.util.function.Supplier;

/**
 * Services that core needs from its surroundings.
 *
 * @param mapper deserialises bodies
 * @param reader reads the files of answers
 * @param realService calls real services
 * @param warning receives messages for the developer
 * @param orphans receives the explanations of calls for tests that are over, with their classes
 */
public record HostServices(
    Supplier<ObjectMapper> mapper,
    AnswerFiles reader,
    RealService realService,
    Consumer<String> warning,
    Consumer<String> orphans) {}
