package dev.cachette.control;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.answer.Fault;
import dev.cachette.calls.Call;
import dev.cachette.calls.MadeBy;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.result.StubReference;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;

/**
 * A call with a number that is unique in the run, not only in its session.
 *
 * @param test the test of its scope, for a call of which it is not known which test made it
 */
record NumberedCall(long number, Call call, String test) implements Call {

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
    MadeBy known = call.madeBy();
    return known.test().isPresent()
        ? known
        : new MadeBy(Optional.of(test), known.thread(), known.evidence());
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
