// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

/**
 * A contract with the version of its consumer.
 *
 * @param version the version; empty if it comes from a file, not a store
 * @param contract the contract
 */
public record VersionedContract(String version, Contract contract) {}
