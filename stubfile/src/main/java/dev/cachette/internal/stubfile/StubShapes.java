// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.internal.fields.Shape;

/** The forms that are defined once in the schema of stub files. */
final class StubShapes {

  static final Shape VALUE = Shape.definition("value");
  static final Shape CONDITION = Shape.definition("condition");
  static final Shape BODY = Shape.definition("body");
  static final Shape CONTENT = Shape.definition("content");
  static final Shape ANSWER = Shape.definition("answer");

  private StubShapes() {}
}
