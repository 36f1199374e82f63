// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.web;

import jakarta.servlet.http.HttpServlet;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;

/** Forwards the tides, in a plain servlet container. */
public final class TideServlet extends HttpServlet {

  private static final long serialVersionUID = 1;

  private String station = "";

  /** For the container. */
  public TideServlet() {}

  /** Asks once, at start-up, which station is ours. */
  @Override
  public void init() {
    try (InputStream in = open("/v1/stations/ours")) {
      station = new String(in.readAllBytes());
    } catch (IOException failed) {
      throw new IllegalStateException("the station is unknown", failed);
    }
  }

  @Override
  protected void doGet(HttpServletRequest request, HttpServletResponse response)
      throws IOException {
    response.setContentType("application/json");
    try (InputStream in = open("/v1/stations/" + station + "/tides")) {
      in.transferTo(response.getOutputStream());
    }
  }

  private static InputStream open(String path) throws IOException {
    return URI.create("https://tides.example" + path).toURL().openStream();
  }
}
