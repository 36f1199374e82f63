// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.scan;

import dev.cachette.internal.text.Placeholders;
import dev.cachette.internal.uri.Percent;
import java.util.Optional;
import java.util.regex.Pattern;

/** URL-encoded forms, as HTML defines them. */
final class FormValues implements ValueFormat {

  private static final Pattern FORM =
      Pattern.compile(
          "[\\w.%~*+-]+(?:\\[[\\w.-]*\\])*=[^&\\s\"<>{}]*+(?:&[^&=\\s]+=[^&\\s\"<>{}]*+)+");

  private static final Pattern PLAIN_NAME = Pattern.compile("[\\w.%+*~$\\[\\]-]*");

  @Override
  public boolean isNamedBy(BodyType type) {
    return type.isForm();
  }

  @Override
  public boolean isLike(String text) {
    return text.indexOf('&') > 0 && FORM.matcher(text).matches();
  }

  @Override
  public Optional<String> change(BodyType type, String text, ValueChange change) {
    StringBuilder changed = new StringBuilder(text.length() + 16);
    int from = 0;
    while (from <= text.length()) {
      int end = text.indexOf('&', from);
      end = end < 0 ? text.length() : end;
      changed.append(from == 0 ? "" : "&").append(field(text.substring(from, end), change));
      from = end + 1;
    }
    return Optional.of(changed.toString());
  }

  /** Returns one {@code name=value} with its value changed. */
  static String field(String field, ValueChange change) {
    int equals = field.indexOf('=');
    if (equals < 0) {
      return PLAIN_NAME.matcher(field).matches() ? field : changed("", field, change);
    }
    String name = field.substring(0, equals);
    // Text of another kind that is called a form has no names.
    String shown = PLAIN_NAME.matcher(name).matches() ? name : changed("", name, change);
    return shown + "=" + changed(Percent.decodeForm(name), field.substring(equals + 1), change);
  }

  private static String changed(String name, String encoded, ValueChange change) {
    String value = Percent.decodeForm(encoded);
    String now = change.of(Value.string(name, value));
    return now.equals(value) ? encoded : Placeholders.encodeOutside(now, Percent::encodeForm);
  }
}
