package dev.cachette;

import dev.cachette.internal.agent.Attribution;
import dev.cachette.internal.stub.Maker;
import dev.cachette.internal.wire.Makers;

/** Tells the server what the hooks know. */
record MakersOf(Attribution attribution) implements Makers {

  @Override
  public Maker at(int port) {
    return attribution.at(port);
  }

  @Override
  public void answered(int port) {
    attribution.answered(port);
  }
}
