package dev.cachette.calls;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.JsonNode;
import dev.cachette.answer.Fault;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.result.StubReference;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.time.Instant;
import java.util.Collections;
import java.util.Map;
import java.util.Optional;

/** A call with the variables of another request line than that of its stub. */
record CallWithVariables(Call call, Map<String, String> variables) implements Call {

  CallWithVariables {
    variables = Collections.unmodifiableMap(variables);
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
