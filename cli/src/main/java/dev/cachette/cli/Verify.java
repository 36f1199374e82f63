// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.contract.ContractStore;
import dev.cachette.contract.ContractVerification;
import dev.cachette.contract.Contracts;
import dev.cachette.contract.StoredContracts;
import dev.cachette.verification.ClauseResult;
import dev.cachette.verification.ClauseResult.Outcome;
import dev.cachette.verification.VerificationReports;
import dev.cachette.verification.VerificationResult;
import java.io.IOException;
import java.time.Duration;
import java.util.Locale;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code cachette verify}. */
@Command(
    name = "verify",
    mixinStandardHelpOptions = true,
    description = {
      "Verify a running provider against its contracts, whatever language it is written in.",
      "Sends the request of each clause, and compares status, headers and body with what the"
          + " consumer needs. Additional members are never a problem."
    },
    footerHeading = "%nExamples:%n",
    footer = {
      "  cachette verify contracts/ --provider berths --against http://localhost:8080",
      "  cachette verify /srv/contracts --provider berths --against http://localhost:8080 \\",
      "      --given-url http://localhost:8080/test/state --provider-version 1.4"
    })
final class Verify implements Callable<Integer> {

  @Mixin private Output output;
  @Mixin private RequestOptions requests;
  @Mixin private JUnitXmlOption junitXml;

  @Parameters(
      paramLabel = "CONTRACTS",
      description =
          "A contract file, a folder of them, or a store: a folder, git+URL, or an http URL.")
  private String location;

  @Option(
      names = "--provider",
      required = true,
      paramLabel = "NAME",
      description = "The provider, as its contracts name it.")
  private String provider;

  @Option(
      names = "--against",
      required = true,
      paramLabel = "URL",
      description = "The base URL of the running provider.")
  private String url;

  @Option(
      names = "--given-url",
      paramLabel = "URL",
      description =
          "Bring the provider into the states of a clause by POST to this URL, before and after"
              + " the clause, with JSON: state, parameters, when, consumer, clause.")
  private @Nullable String givenUrl;

  @Option(
      names = "--consumer",
      paramLabel = "NAME",
      description = "Only the contracts of this consumer.")
  private @Nullable String consumer;

  @Option(
      names = "--consumer-version",
      paramLabel = "VERSION",
      description =
          "Only the contracts of this version of consumers, of a store. By default the latest of"
              + " each consumer, and those in environments.")
  private @Nullable String consumerVersion;

  @Option(
      names = "--provider-version",
      paramLabel = "VERSION",
      description = "Add the result to the store, for this version of the provider.")
  private @Nullable String providerVersion;

  @Option(
      names = "--timeout",
      paramLabel = "TIME",
      converter = DurationReader.class,
      description = "The time limit of each request; 30s by default.")
  private @Nullable Duration timeout;

  @Override
  public Integer call() throws IOException {
    ContractVerification verification = verification();
    VerificationResult result = verification.verify();
    junitXml.write(() -> VerificationReports.junitXml(result));
    if (providerVersion != null) {
      ContractStore.at(location).record(result, providerVersion);
    }
    if (output.isJson()) {
      output.json(VerificationReports.json(result));
    } else {
      print(result);
    }
    remark(result);
    boolean nothing = result.clauses().stream().allMatch(it -> it.outcome() == Outcome.NOT_CHECKED);
    return result.isMet() ? 0 : nothing ? Tool.IMPOSSIBLE : Tool.DOES_NOT_HOLD;
  }

  private ContractVerification verification() {
    StoredContracts contracts = Contracts.in(location);
    ContractVerification verification =
        consumerVersion == null ? contracts.of(provider) : contracts.of(provider, consumerVersion);
    try {
      verification.against(url);
      if (consumer != null) {
        verification.consumer(consumer);
      }
      if (givenUrl != null) {
        verification.givenBy(givenUrl);
      }
      if (timeout != null) {
        verification.timeout(timeout);
      }
      requests.giveTo(verification::header, verification::secret);
    } catch (IllegalArgumentException wrong) {
      throw new WrongUsage(String.valueOf(wrong.getMessage()));
    }
    return verification;
  }

  private void print(VerificationResult result) {
    Table table = new Table("CONSUMER", "CLAUSE", "TIME", "RESULT");
    for (ClauseResult each : result.clauses()) {
      String version = each.consumerVersion().isEmpty() ? "" : "@" + each.consumerVersion();
      table.add(
          each.consumer() + version,
          each.clause(),
          each.took().toMillis() + " ms",
          each.isMet() ? "met" : word(each));
    }
    StringBuilder text = new StringBuilder(table.toString());
    result.unmet().forEach(it -> text.append('\n').append(it.explanation()));
    output.result(text.toString());
  }

  private static String word(ClauseResult result) {
    return result.outcome().name().replace('_', ' ');
  }

  private void remark(VerificationResult result) {
    int all = result.clauses().size();
    long met = result.clauses().stream().filter(ClauseResult::isMet).count();
    output.remark(
        String.format(
            Locale.ROOT,
            "%d %s verified against %s: %d met%s%s",
            all,
            all == 1 ? "clause" : "clauses",
            url,
            met,
            all == met ? "" : ", " + (all - met) + " not",
            providerVersion == null
                ? ""
                : "; added to "
                    + ContractStore.at(location)
                    + " for "
                    + provider
                    + "@"
                    + providerVersion));
  }
}
