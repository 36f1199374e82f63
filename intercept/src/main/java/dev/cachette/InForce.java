// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import dev.cachette.cassette.CassetteContent;
import dev.cachette.cassette.RecordingMode;
import dev.cachette.http.Request;
import dev.cachette.internal.engine.Scopes;
import dev.cachette.internal.openapi.Described;
import dev.cachette.result.StubReference;
import dev.cachette.result.StubStatus;
import java.util.List;
import java.util.Optional;

/**
 * The stubs, cassettes and API descriptions of one moment; those of the innermost scope first.
 *
 * @param stubs the active stubs
 * @param cassettes the active cassettes
 * @param descriptions the API descriptions that calls are checked against
 */
public record InForce(
    List<StubStatus> stubs, List<ActiveRecording> cassettes, List<ApiDescription> descriptions) {

  /** Copies the lists. */
  public InForce {
    stubs = List.copyOf(stubs);
    cassettes = List.copyOf(cassettes);
    descriptions = List.copyOf(descriptions);
  }

  static InForce of(Scopes scopes) {
    return new InForce(
        scopes.statuses(),
        scopes.cassettes().stream().map(it -> new ActiveRecording(it.mode(), it.before())).toList(),
        scopes.described().stream().map(ApiDescription::new).toList());
  }

  /**
   * An active cassette.
   *
   * @param mode its mode in this run
   * @param recorded its content when it was activated
   */
  public record ActiveRecording(RecordingMode mode, CassetteContent recorded) {}

  /** The API description of a service. */
  public static final class ApiDescription {

    private final Described described;

    private ApiDescription(Described described) {
      this.described = described;
    }

    /** Returns the origin of the service: {@code https://berths.example}. */
    public String origin() {
      return described.origin();
    }

    /** Returns the name of its file. */
    public String name() {
      return described.description().name();
    }

    /** Returns its operations, with their places. */
    public List<StubReference> operations() {
      return described.description().operations();
    }

    /** Returns the operation of a request; empty if it has none, or is for another service. */
    public Optional<StubReference> operation(Request request) {
      return described.isFor(request)
          ? described.description().operation(request)
          : Optional.empty();
    }
  }
}
