// SPDX-License-Identifier: Apache-2.0
package dev.cachette.calls;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.answer.Fault;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.result.ClosestStub;
import dev.cachette.result.StubReference;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A call that another one stands behind. Not public API: may change in any release.
 *
 * @hidden
 */
public abstract class ForwardingCall implements Call {

  private final Call call;

  /** Creates it, with the call behind it. */
  protected ForwardingCall(Call call) {
    this.call = call;
  }

  /** Returns the call behind it. */
  protected final Call behind() {
    return call;
  }

  @Override
  public List<ClosestStub> closestStubs() {
    return call.closestStubs();
  }

  @Override
  public CallTimes times() {
    return call.times();
  }

  @Override
  public Request request() {
    return call.request();
  }

  @Override
  public Response response() {
    return call.response();
  }

  @Override
  public Optional<Fault> fault() {
    return call.fault();
  }

  @Override
  public Optional<String> failure() {
    return call.failure();
  }

  @Override
  public MadeBy madeBy() {
    return call.madeBy();
  }

  @Override
  public Instant arrivedAt() {
    return call.arrivedAt();
  }

  @Override
  public Optional<Duration> duration() {
    return call.duration();
  }

  @Override
  public String protocol() {
    return call.protocol();
  }

  @Override
  public long number() {
    return call.number();
  }

  @Override
  public int connection() {
    return call.connection();
  }

  @Override
  public Optional<X509Certificate> clientCertificate() {
    return call.clientCertificate();
  }

  @Override
  public Optional<StubReference> stub() {
    return call.stub();
  }

  @Override
  public Map<String, String> variables() {
    return call.variables();
  }

  @Override
  public <T> T as(Class<T> type) {
    return call.as(type);
  }

  @Override
  public <T> T as(TypeReference<T> type) {
    return call.as(type);
  }

  @Override
  public String outcome() {
    return call.outcome();
  }

  @Override
  public State state() {
    return call.state();
  }

  @Override
  public String text() {
    return call.text();
  }

  @Override
  public JsonNode json() {
    return call.json();
  }

  @Override
  public String toString() {
    return call.toString();
  }
}
