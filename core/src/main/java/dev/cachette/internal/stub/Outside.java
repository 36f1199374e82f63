package dev.cachette.internal.stub;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.util.function.Consumer;
import java.util.function.Supplier;

/**
 * What the core needs of the world and does not have itself.
 *
 * @param mapper reads bodies as objects
 * @param reader reads the files that answers name
 * @param realService reaches the destination that a caller meant
 * @param warning takes what the developer should know at once
 */
public record Outside(
    Supplier<ObjectMapper> mapper,
    ContentReader reader,
    RealService realService,
    Consumer<String> warning) {}
