// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.resource;

import dev.cachette.answer.Answer;
import dev.cachette.answer.Answers;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.cassette.CassetteException;
import dev.cachette.internal.misuse.Refusals;
import dev.cachette.internal.stubfile.CollectionDeclaration;
import dev.cachette.internal.stubfile.StubDeclaration;
import dev.cachette.internal.stubfile.StubFile;
import dev.cachette.internal.stubfile.StubFileResolver;
import dev.cachette.stubfile.StubFileException;
import dev.cachette.stubfile.StubFileProblem;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.BiFunction;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.UnaryOperator;

/** Stub files and the files that they include. */
public final class StubSources {

  /** The existing files; the others are problems. */
  private final Function<Consumer<StubFileProblem>, List<StubSource>> sources;

  private final Reading reading;

  /**
   * Access to everything that answers need besides the files themselves.
   *
   * @param ready reads the file of an answer
   * @param cassette returns the file of a cassette
   * @param recorded returns an answer from a cassette
   * @param reach the files that may be named
   */
  public record Reading(
      UnaryOperator<Answer> ready,
      Function<String, Path> cassette,
      BiFunction<Path, String, ResponseAnswer> recorded,
      Reach reach) {}

  /**
   * The result of reading.
   *
   * @param stubs all stubs, those of included files first
   * @param collections all collections
   * @param cors whether pages of other origins may call
   * @param files the files on disk
   */
  public record Loaded(
      List<StubDeclaration> stubs,
      List<CollectionDeclaration> collections,
      boolean cors,
      List<Path> files) {}

  private StubSources(
      Function<Consumer<StubFileProblem>, List<StubSource>> sources, Reading reading) {
    this.sources = sources;
    this.reading = reading;
  }

  /**
   * Creates sources from names.
   *
   * @param folder the folder for names without a file extension
   */
  public static StubSources named(List<String> names, Path folder, Reading reading) {
    if (names.isEmpty()) {
      throw Refusals.argument("load(names) needs at least one name.");
    }
    return new StubSources(missing -> StubSource.all(names, folder, missing), reading);
  }

  /** Creates a source from text. */
  public static StubSources of(String text, Reading reading) {
    Refusals.given("declare(text)", text);
    return new StubSources(missing -> List.of(StubSource.ofText(text)), reading);
  }

  /**
   * Reads all of them.
   *
   * @throws StubFileException with all problems in any of them
   */
  public Loaded read() {
    Round round = new Round();
    sources.apply(round.unread::add).forEach(round::readGiven);
    return round.loaded();
  }

  /** One pass over all files. */
  private final class Round {

    private final Set<StubSource> seen = new LinkedHashSet<>();
    private final List<StubFile> files = new ArrayList<>();
    private final List<StubFileProblem> unread = new ArrayList<>();

    void readGiven(StubSource source) {
      try {
        read(source);
      } catch (IllegalArgumentException unreadable) {
        unread.add(new StubFileProblem(source.label(), 1, 1, "", unreadable.getMessage()));
      }
    }

    private void read(StubSource source) {
      if (!seen.add(source)) {
        return;
      }
      StubFile file = StubFile.read(source.label(), source.text(), surroundings(source));
      for (StubFile.Include include : file.includes()) {
        try {
          read(within(source.sibling(include.name())).requireThere());
        } catch (IllegalArgumentException missing) {
          include.refuse().accept(missing.getMessage());
        }
      }
      files.add(file);
    }

    Loaded loaded() {
      List<StubDeclaration> stubs = files.stream().flatMap(it -> it.stubs().stream()).toList();
      if (unread.isEmpty()) {
        requireEach(stubs.stream().filter(stub -> !stub.after().isEmpty()).toList(), stubs);
      }
      List<StubFileProblem> problems = new ArrayList<>(unread);
      files.forEach(file -> problems.addAll(file.problems()));
      if (!problems.isEmpty()) {
        throw new StubFileException(problems);
      }
      return new Loaded(
          stubs,
          files.stream().flatMap(it -> it.collections().stream()).toList(),
          files.stream().anyMatch(StubFile::cors),
          seen.stream().flatMap(source -> source.path().stream()).toList());
    }

    /** Reports unknown stubs in {@code after}. */
    private void requireEach(List<StubDeclaration> later, List<StubDeclaration> all) {
      if (later.isEmpty()) {
        return;
      }
      Set<String> names = new TreeSet<>();
      all.forEach(stub -> names.add(stub.draft().reference().name()));
      for (StubDeclaration stub : later) {
        for (String name : stub.after()) {
          if (!names.contains(name)) {
            stub.missing().note(name, names);
          }
        }
      }
    }
  }

  private StubSource within(StubSource source) {
    source.path().ifPresent(reading.reach()::require);
    return source;
  }

  private StubFileResolver surroundings(StubSource source) {
    return new StubFileResolver() {
      @Override
      public ResponseAnswer file(String name) {
        StubSource beside = within(source.sibling(name)).requireThere();
        return beside.path().isPresent()
            ? Answers.file(beside.label())
            : Answers.classpath(beside.location());
      }

      @Override
      public ResponseAnswer recorded(String cassette, String requestLine) {
        Path file = reading.reach().require(reading.cassette().apply(cassette));
        try {
          return reading.recorded().apply(file, requestLine);
        } catch (CassetteException unusable) {
          // A problem at its place, besides the others.
          throw Refusals.argument(unusable.getMessage(), unusable);
        }
      }

      @Override
      public Answer ready(Answer answer) {
        return reading.ready().apply(answer);
      }

      @Override
      public String writable(String name) {
        return reading.reach().require(Path.of(Resources.requireWritable(name))).toString();
      }

      @Override
      public void requireRealService() {
        reading.reach().requireRealService();
      }
    };
  }

  @Override
  public String toString() {
    return String.join(", ", sources.apply(missing -> {}).stream().map(StubSource::label).toList());
  }
}
