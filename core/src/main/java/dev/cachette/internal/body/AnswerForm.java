// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.body;

import com.fasterxml.jackson.databind.JsonNode;

/**
 * A body in a stub file.
 *
 * @param key the key, such as {@code json}
 * @param value its value
 * @param impliedType the content type that follows from the key
 */
public record AnswerForm(String key, JsonNode value, String impliedType) {}
