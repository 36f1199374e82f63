// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract;

import dev.cachette.internal.misuse.Refusals;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** The names of consumers and providers, and their versions: parts of the names of files. */
public final class Names {

  private static final Pattern NAME = Pattern.compile("[A-Za-z0-9](?:-?[A-Za-z0-9._])*");
  private static final Pattern VERSION = Pattern.compile("[A-Za-z0-9][A-Za-z0-9._+-]*");
  private static final Pattern BRANCH = Pattern.compile("[A-Za-z0-9._+#-][A-Za-z0-9._+#/-]*");

  private Names() {}

  /**
   * Returns a name.
   *
   * @param what its role in the message: {@code The consumer}
   * @throws IllegalArgumentException if it is malformed
   */
  public static String require(String what, @Nullable String name) {
    return require(what, name, NAME, "letters, digits, \".\", \"_\" and single \"-\"");
  }

  /**
   * Returns a version.
   *
   * @throws IllegalArgumentException if it is malformed
   */
  public static String version(@Nullable String version) {
    return require("A version", version, VERSION, "letters, digits, \".\", \"_\", \"+\" and \"-\"");
  }

  /**
   * Returns the name of a branch or an environment.
   *
   * @throws IllegalArgumentException if it is malformed
   */
  public static String label(String what, @Nullable String label) {
    return require(
        what, label, BRANCH, "letters, digits, \".\", \"_\", \"+\", \"#\", \"-\" and \"/\"");
  }

  private static String require(
      String what, @Nullable String name, Pattern allowed, String characters) {
    if (name == null || !allowed.matcher(name).matches() || name.contains("..")) {
      throw Refusals.argument(
          String.format("%s must consist of %s, not \"%s\".", what, characters, name));
    }
    return name;
  }
}
