// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.match;

/** The key of a request by method, origin and normal path; equal requests have equal keys. */
public final class RequestKey {

  private RequestKey() {}

  /** Joins the parts of a key; methods contain no space, and origins no slash after the host. */
  public static String of(String method, String origin, String path) {
    return method + ' ' + origin + path;
  }
}
