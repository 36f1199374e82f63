// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract.store;

import dev.cachette.internal.contract.VersionedContract;
import java.util.List;

/** Where contracts are read from. */
public interface ContractSource {

  /** Returns the contracts; of a store, those that count now. */
  List<VersionedContract> read();

  /** Returns all contracts, of a store also those of earlier versions. */
  default List<VersionedContract> readAll() {
    return read();
  }
}
