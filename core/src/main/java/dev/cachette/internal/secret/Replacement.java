package dev.cachette.internal.secret;

/** Replaces secrets: by a mask in messages, by a placeholder in files. */
@FunctionalInterface
public interface Replacement {

  /** Returns the text in place of a secret; its own value leaves it unchanged. */
  String of(Secret secret);

  /** Is notified of text that has secrets within its encoding, such as JSON in Base64. */
  default void encoded(String text) {}
}
