// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.body;

import dev.cachette.internal.content.Content;
import dev.cachette.internal.scan.BodyType;
import dev.cachette.internal.text.Escapes;
import java.util.Optional;

/** HTML: compared as text. */
final class HtmlFormat extends TextFormat {

  @Override
  public boolean isNamedBy(BodyType type) {
    return type.name().endsWith("html");
  }

  @Override
  public boolean isLike(Content content) {
    return false;
  }

  @Override
  public String escaped(String value) {
    return Escapes.xml(value);
  }

  @Override
  public Optional<AnswerForm> answer(Content content) {
    return answer(content, "html", "text/html; charset=utf-8");
  }
}
