// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.cassette.Redaction;
import dev.cachette.internal.cassette.FileRedaction;
import dev.cachette.internal.convert.JavaOfExchanges;
import dev.cachette.internal.misuse.Refusals;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.IntStream;

/** Converts a cassette to stubs, with secrets redacted by the default rules. Not thread-safe. */
public final class CassetteConversion implements AutoCloseable {

  private final ParallelEntries parallel = new ParallelEntries();
  private final FileRedaction redaction;
  private final List<Integer> wanted;

  private CassetteConversion(CassetteOnDisk cassette, IntStream wanted) {
    this.wanted = wanted.boxed().toList();
    this.redaction =
        parallel.lookAt(cassette.recordings(), Redaction.byDefault(), FileRedaction::lookAt);
  }

  /** Converts all exchanges. */
  public static CassetteConversion of(CassetteOnDisk cassette) {
    return new CassetteConversion(cassette, IntStream.range(0, cassette.exchanges().size()));
  }

  /**
   * Converts one exchange.
   *
   * @param number its number, from 1
   * @throws IllegalArgumentException if there is none of that number
   */
  public static CassetteConversion of(CassetteOnDisk cassette, int number) {
    if (number < 1 || number > cassette.exchanges().size()) {
      throw Refusals.argument(
          String.format("there is no exchange %d in %s.", number, cassette.path()));
    }
    return new CassetteConversion(cassette, IntStream.of(number - 1));
  }

  /**
   * Returns Java code, a stub for each exchange.
   *
   * @throws IllegalArgumentException if no exchange has an answer
   */
  public String toJava() {
    return JavaOfExchanges.of(wanted.stream().map(redaction::exchange).toList());
  }

  /**
   * Returns a stub file in parts, in order: a stub for each request, with its answers in turn. The
   * parts are made as they are asked for, since a cassette may be large.
   *
   * @param format the format of the file
   * @param placeholders gets the names of placeholders for secrets that callers would get literally
   * @param remark is told of exchanges that no stub can express, and of what is not compared
   */
  public Iterable<String> toStubs(
      StubFormat format, Set<String> placeholders, Consumer<String> remark) {
    return new StubsOfCassette(redaction, parallel, placeholders, remark).of(wanted, format);
  }

  @Override
  public void close() {
    parallel.close();
  }
}
