// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.body;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import dev.cachette.http.Query;
import dev.cachette.internal.content.Content;
import dev.cachette.internal.content.Reading;
import dev.cachette.internal.finding.TextFinding;
import dev.cachette.internal.scan.BodyType;
import dev.cachette.internal.secret.Masking;
import dev.cachette.internal.text.Quoting;
import dev.cachette.internal.uri.Percent;
import dev.cachette.result.Difference;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/** URL-encoded forms, as HTML defines them. */
public final class FormFormat implements BodyFormat {

  /** The start of the place of a field. */
  static final String FIELD = "field ";

  FormFormat() {}

  @Override
  public boolean isNamedBy(BodyType type) {
    return type.isForm();
  }

  @Override
  public boolean isLike(Content content) {
    return false;
  }

  @Override
  public Optional<String> canonical(Content content, Ignored ignored) {
    return Optional.of("form " + canonical(content.form(), ignored.fields()));
  }

  /** Returns fields sorted by name, with the values of each in their order. */
  public static String canonical(Query query, List<String> ignored) {
    StringBuilder sorted = new StringBuilder();
    for (String name : new TreeSet<>(query.names())) {
      if (!ignored.contains(name)) {
        for (String value : query.all(name)) {
          sorted.append(Percent.encodeForm(name)).append('=');
          sorted.append(Percent.encodeForm(value)).append('&');
        }
      }
    }
    return sorted.toString();
  }

  @Override
  public Optional<List<Difference>> differences(Content expected, Content actual, Ignored ignored) {
    List<Difference> differences = new ArrayList<>();
    for (String name : names(expected.form(), actual.form(), ignored)) {
      List<String> want = expected.form().all(name);
      List<String> have = actual.form().all(name);
      if (!want.equals(have)) {
        String place = FIELD + name;
        differences.add(
            want.size() == 1 && have.size() == 1
                ? TextFinding.of(place, want.get(0), have.get(0), text -> Masking.field(name, text))
                : Difference.of(shown(name, want), shown(name, have)).at(place));
      }
    }
    return Optional.of(differences);
  }

  private static Set<String> names(Query one, Query other, Ignored ignored) {
    Set<String> names = new LinkedHashSet<>(one.names());
    names.addAll(other.names());
    ignored.fields().forEach(names::remove);
    return names;
  }

  private static String shown(String name, List<String> values) {
    return values.isEmpty()
        ? Difference.MISSING
        : String.join(
            ", ", values.stream().map(text -> Quoting.quote(Masking.field(name, text))).toList());
  }

  @Override
  public Optional<List<BodyChange>> changes(Content before, Content after, Ignored ignored) {
    List<BodyChange> changes = new ArrayList<>();
    for (String name : names(before.form(), after.form(), ignored)) {
      List<String> old = before.form().all(name);
      List<String> now = after.form().all(name);
      String place = FIELD + name;
      if (now.isEmpty()) {
        changes.add(BodyChange.gone(place, shown(name, old)));
      } else if (old.isEmpty()) {
        changes.add(BodyChange.fresh(place, shown(name, now)));
      } else if (!old.equals(now)) {
        changes.add(
            new BodyChange(
                BodyChange.Kind.VALUE,
                place,
                shown(name, old),
                shown(name, now),
                Ignored.field(name)));
      }
    }
    return Optional.of(changes);
  }

  @Override
  public String escaped(String value) {
    return Percent.encodeForm(value);
  }

  @Override
  public Optional<JsonNode> condition(Content content) {
    return new TextFormat().condition(content);
  }

  @Override
  public Optional<AnswerForm> answer(Content content) {
    return new TextFormat().answer(content);
  }

  @Override
  public Optional<Reading<JsonNode>> value(Content content, FieldTypes fields) {
    Query form = content.form();
    ObjectNode object = JsonNodeFactory.instance.objectNode();
    form.names().forEach(name -> object.set(name, fields.value(name, form.all(name))));
    return Optional.of(Reading.of(object));
  }
}
