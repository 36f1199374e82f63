// SPDX-License-Identifier: Apache-2.0
package dev.cachette.result;

/**
 * An answer of a stub, and how often it was given.
 *
 * @param answer the answer in words: {@code 503 Service Unavailable}
 * @param calls how many calls got it, in all tests of the scope of its stub
 */
public record AnswerUse(String answer, int calls) {}
