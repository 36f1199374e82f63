// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.cassette.Exchange;
import dev.cachette.http.MediaType;
import dev.cachette.tooling.CassetteOnDisk;
import dev.cachette.tooling.ExchangeFilter;
import dev.cachette.tooling.ExchangeText;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code cachette show}. */
@Command(
    name = "show",
    mixinStandardHelpOptions = true,
    description =
        "Show the content of a cassette, or of a HAR file exported by a browser or another tool.",
    footerHeading = "%nExamples:%n",
    footer = {
      "  cachette show arrival.har --host tides.example --status 4xx",
      "  cachette show arrival.har --exchange 3",
      "",
      "For readable differences in git:",
      "  git config diff.cassette.textconv 'cachette show --full --quiet'",
      "  echo '*.har diff=cassette' >> .gitattributes"
    })
final class Show implements Callable<Integer> {

  @Mixin private Output output;

  @Parameters(paramLabel = "FILE", description = "A cassette.")
  private Path file;

  @Option(
      names = "--exchange",
      paramLabel = "N",
      description = "One exchange in full, by its number in the list.")
  private @Nullable Integer exchange;

  @Option(
      names = "--full",
      description = "All exchanges in full, without times, as text for comparison.")
  private boolean whole;

  @Option(
      names = "--host",
      paramLabel = "HOST",
      description = "Exchanges of this host; *.example for all subdomains.")
  private @Nullable String host;

  @Option(names = "--method", paramLabel = "METHOD", description = "Exchanges with this method.")
  private @Nullable String method;

  @Option(
      names = "--status",
      converter = StatusRange.Reader.class,
      paramLabel = "STATUS",
      description = "Exchanges with this status: 404, 4xx, or 400-499.")
  private @Nullable StatusRange status;

  @Option(
      names = "--text",
      paramLabel = "TEXT",
      description = "Exchanges with this text in URL, headers or bodies, ignoring case.")
  private @Nullable String text;

  @Override
  public Integer call() {
    try (CassetteOnDisk cassette = new CassetteOnDisk(file, output::notice)) {
      List<Exchange> all = cassette.redacted();
      if (exchange != null) {
        one(all, exchange);
        return 0;
      }
      ExchangeFilter filter = filter();
      Map<Integer, Exchange> wanted = new LinkedHashMap<>();
      for (int at = 0; at < all.size(); at++) {
        Exchange each = all.get(at);
        if (filter.chooses(each)) {
          wanted.put(at + 1, each);
        }
      }
      show(wanted);
      output.remark(summary(cassette, wanted.size(), all.size()));
      return 0;
    }
  }

  private String summary(CassetteOnDisk cassette, int shown, int all) {
    String recorded = cassette.content().recordedAt().map(at -> ", recorded at " + at).orElse("");
    String count = shown == all ? Integer.toString(all) : shown + " of " + all;
    return count + (all == 1 ? " exchange" : " exchanges") + recorded;
  }

  private void one(List<Exchange> all, int number) {
    if (number < 1 || number > all.size()) {
      throw new Failure(
          String.format(
              "there is no exchange %d in %s; it has %d, numbered from 1.",
              number, file, all.size()));
    }
    Exchange wanted = all.get(number - 1);
    if (output.isJson()) {
      output.json(asJson(number, wanted, true));
    } else {
      output.result(ExchangeText.of(wanted));
      output.remark(
          String.format(
              "exchange %d of %d, %s, %d ms, %s",
              number, all.size(), wanted.started(), wanted.time().toMillis(), wanted.protocol()));
    }
  }

  private void show(Map<Integer, Exchange> wanted) {
    if (output.isJson()) {
      List<Object> list = new ArrayList<>();
      wanted.forEach((number, each) -> list.add(asJson(number, each, whole)));
      output.json(list);
    } else if (whole) {
      wanted.forEach((number, each) -> output.result(ExchangeText.of(each) + "\n" + "-".repeat(8)));
    } else if (!wanted.isEmpty()) {
      Table table = new Table("#", "METHOD", "URL", "ANSWER", "TYPE", "SIZE", "TIME");
      wanted.forEach((number, each) -> table.add(row(number, each)));
      output.result(table.toString());
    }
  }

  private static String[] row(int number, Exchange each) {
    return new String[] {
      Integer.toString(number),
      each.request().method(),
      each.request().uri().toString(),
      each.outcome(),
      type(each).orElse(""),
      each.response().map(it -> Sizes.of(it.body().size())).orElse(""),
      each.time().toMillis() + " ms"
    };
  }

  private static Optional<String> type(Exchange each) {
    return each.response()
        .flatMap(it -> it.headers().contentType())
        .map((MediaType it) -> it.type() + "/" + it.subtype());
  }

  private static Map<String, Object> asJson(int number, Exchange each, boolean whole) {
    Map<String, Object> json = new LinkedHashMap<>();
    json.put("number", number);
    json.put("started", each.started().toString());
    json.put("milliseconds", each.time().toMillis());
    json.put("method", each.request().method());
    json.put("url", each.request().uri().toString());
    json.put("answer", each.outcome());
    type(each).ifPresent(it -> json.put("type", it));
    each.response().ifPresent(it -> json.put("bytes", it.body().size()));
    if (whole) {
      json.put("text", ExchangeText.of(each));
    }
    return json;
  }

  private ExchangeFilter filter() {
    ExchangeFilter filter = ExchangeFilter.all();
    filter = host == null ? filter : filter.host(host);
    filter = method == null ? filter : filter.method(method);
    filter = status == null ? filter : filter.status(status::contains);
    return text == null ? filter : filter.text(text);
  }
}
