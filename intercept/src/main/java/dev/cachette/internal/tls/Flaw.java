package dev.cachette.internal.tls;

/** What is wrong with the certificate that a server shows. */
public enum Flaw {
  /** Nothing. */
  NONE,
  /** It was valid until yesterday. */
  EXPIRED,
  /** It is valid from tomorrow on. */
  NOT_YET_VALID,
  /** It is for another host. */
  WRONG_HOST,
  /** It is by an authority that nobody knows. */
  UNTRUSTED
}
