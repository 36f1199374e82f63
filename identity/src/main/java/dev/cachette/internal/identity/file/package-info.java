// SPDX-License-Identifier: Apache-2.0
/** Files that declare an identity provider, in YAML or JSON. */
@NullMarked
package dev.cachette.internal.identity.file;

import org.jspecify.annotations.NullMarked;
