package dev.cachette.internal.body;

import dev.cachette.internal.content.Content;
import dev.cachette.internal.scan.BodyType;
import java.util.Optional;
import org.apache.commons.text.StringEscapeUtils;

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
    return StringEscapeUtils.escapeXml10(value);
  }

  @Override
  public Optional<AnswerForm> answer(Content content) {
    return answer(content, "html", "text/html; charset=utf-8");
  }
}
