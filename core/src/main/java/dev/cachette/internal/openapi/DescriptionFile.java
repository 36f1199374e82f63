package dev.cachette.internal.openapi;

/** A file of a description, and those that it may refer to. */
public interface DescriptionFile {

  /** What messages call it; two with the same label are the same file. */
  String label();

  /** Its text. */
  String text();

  /**
   * The file of this name, relative to this one.
   *
   * @throws IllegalArgumentException if there is none
   */
  DescriptionFile sibling(String name);
}
