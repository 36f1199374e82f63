package dev.cachette.internal.yaml;

/** Takes what is wrong in a text while it is read. */
@FunctionalInterface
public interface Complaints {

  /**
   * Notes something that is wrong.
   *
   * @param line its line, from 1
   * @param column its column, from 1
   * @param path the way to it from the root; empty for the whole text
   */
  void add(int line, int column, String path, String message);
}
