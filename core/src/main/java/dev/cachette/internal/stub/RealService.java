package dev.cachette.internal.stub;

import dev.cachette.http.Request;
import dev.cachette.http.Response;
import java.io.IOException;

/** Reaches the destination that a caller meant: the core itself has no network. */
@FunctionalInterface
public interface RealService {

  /**
   * Makes a call and waits for its response.
   *
   * @throws IOException if there is none
   */
  Response call(Request request) throws IOException;
}
