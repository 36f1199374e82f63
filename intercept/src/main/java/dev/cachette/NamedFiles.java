// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.answer.Answer;
import dev.cachette.answer.AnswerInternals;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.internal.answer.Delivery;
import dev.cachette.internal.disk.CassetteName;
import dev.cachette.internal.openapi.Description;
import dev.cachette.internal.resource.DescriptionSource;
import dev.cachette.internal.resource.Reach;
import dev.cachette.internal.resource.Resources;
import dev.cachette.internal.resource.StubSources;
import java.nio.file.Path;
import java.util.List;

/** The files that tests name: stub files, descriptions, cassettes, bodies of answers. */
final class NamedFiles {

  private final Settings settings;
  private final Resources resources = new Resources();

  NamedFiles(Settings settings) {
    this.settings = settings;
  }

  /** Returns what reads the bodies of answers. */
  Resources resources() {
    return resources;
  }

  /** Returns an answer with its file read. */
  Answer ready(Answer answer) {
    return AnswerInternals.map(answer, this::read);
  }

  private Answer read(Answer answer) {
    if (!(answer instanceof ResponseAnswer plain)
        || AnswerInternals.delivery(plain).source().isEmpty()) {
      return answer;
    }
    Delivery.Source source = AnswerInternals.delivery(plain).source().get();
    if (AnswerInternals.delivery(plain).streamed()) {
      resources.requireReadable(source);
      return plain;
    }
    return AnswerInternals.read(plain, resources.read(source));
  }

  /** Returns stub files by their names. */
  StubSources stubs(String... names) {
    return StubSources.named(List.of(names), settings.stubFolder(), reading(Reach.anywhere()));
  }

  /** Returns a stub file that is given as text. */
  StubSources stubsOf(String text) {
    return StubSources.of(
        text, reading(settings.declaredWithin().map(Reach::within).orElseGet(Reach::anywhere)));
  }

  private StubSources.Reading reading(Reach reach) {
    return new StubSources.Reading(this::ready, this::cassette, CassetteFiles::recorded, reach);
  }

  /** Returns the file of a cassette. */
  Path cassette(String name) {
    return CassetteName.in(settings.cassetteFolder(), name);
  }

  /** Reads an API description. */
  Description description(String name) {
    return Description.read(DescriptionSource.named(name, settings.stubFolder()));
  }
}
