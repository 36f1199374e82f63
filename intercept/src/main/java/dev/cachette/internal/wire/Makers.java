package dev.cachette.internal.wire;

import dev.cachette.internal.stub.Maker;

/** Tells who makes the requests of a connection. */
public interface Makers {

  /** Nothing is known. */
  Makers UNKNOWN =
      new Makers() {
        @Override
        public Maker at(int port) {
          return Maker.UNKNOWN;
        }

        @Override
        public void answered(int port) {}
      };

  /** Returns who made the current request on a connection from this port. */
  Maker at(int port);

  /** Notes that the request is answered: what is sent next is another one. */
  void answered(int port);
}
