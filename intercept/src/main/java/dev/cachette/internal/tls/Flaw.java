// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tls;

/** A flaw in the certificate of a server. */
public enum Flaw {
  /** No flaw. */
  NONE,
  /** It expired yesterday. */
  EXPIRED,
  /** It is valid from tomorrow. */
  NOT_YET_VALID,
  /** It is for another host. */
  WRONG_HOST,
  /** It is issued by an unknown authority. */
  UNTRUSTED
}
