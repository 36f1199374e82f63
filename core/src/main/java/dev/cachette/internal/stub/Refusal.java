package dev.cachette.internal.stub;

import org.opentest4j.AssertionFailedError;

/**
 * Why a call cannot be answered, not even by an explanation of what is missing.
 *
 * @param status the status of its response
 * @param failure the failure of the test
 */
record Refusal(int status, AssertionFailedError failure) {}
