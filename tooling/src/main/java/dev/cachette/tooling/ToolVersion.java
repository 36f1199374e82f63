// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import java.util.Optional;

/** The version in the manifest of the jar. */
public final class ToolVersion {

  private ToolVersion() {}

  /** Returns it; "unpackaged" for a folder of classes. */
  public static String number() {
    return Optional.ofNullable(ToolVersion.class.getPackage().getImplementationVersion())
        .orElse("unpackaged");
  }
}
