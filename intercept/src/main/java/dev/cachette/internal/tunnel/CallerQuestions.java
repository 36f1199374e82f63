// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.tunnel;

import dev.cachette.calls.MadeBy.Evidence;
import dev.cachette.internal.agent.Attribution.Attributed;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.net.Socket;
import java.util.Optional;

/**
 * The questions of a recorder to one application, over a connection between them. Each is a byte
 * and two numbers; most have an answer, so that the recorder knows when it is done.
 */
final class CallerQuestions implements AutoCloseable {

  private static final byte AT = 'A';
  private static final byte CARRIES = 'C';
  private static final byte CARRIES_NONE = 'N';

  private static final int PATIENCE_MILLIS = 2_000;

  private final Socket connection;
  private final DataInputStream in;
  private final DataOutputStream out;

  CallerQuestions(Socket connection) throws IOException {
    this.connection = connection;
    connection.setTcpNoDelay(true);
    connection.setSoTimeout(PATIENCE_MILLIS);
    this.in = new DataInputStream(connection.getInputStream());
    this.out = new DataOutputStream(connection.getOutputStream());
  }

  /** Returns who made the request that is on a tunnel now. */
  synchronized Optional<Attributed> at(int tunnel, int stream) throws IOException {
    ask(AT, tunnel, stream);
    return in.readBoolean()
        ? Optional.of(new Attributed(in.readLong(), Evidence.values()[in.readByte()], in.readUTF()))
        : Optional.empty();
  }

  /** A connection from a port to the application carries a call. */
  synchronized void carries(int port, long call) throws IOException {
    ask(CARRIES, port, call);
    in.readByte();
  }

  /** A connection from a port to the application carries no call any more. */
  synchronized void carriesNone(int port) throws IOException {
    ask(CARRIES_NONE, port, 0);
  }

  private void ask(byte question, int port, long number) throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    DataOutputStream asked = new DataOutputStream(bytes);
    asked.writeByte(question);
    asked.writeInt(port);
    asked.writeLong(number);
    out.write(bytes.toByteArray());
  }

  /** Answers one question, in the application. */
  static void answer(DataInputStream from, DataOutputStream to, CallerAnswers answers)
      throws IOException {
    byte question = from.readByte();
    int port = from.readInt();
    long number = from.readLong();
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    DataOutputStream answer = new DataOutputStream(bytes);
    switch (question) {
      case AT -> {
        Optional<Attributed> maker = answers.at(port, (int) number);
        answer.writeBoolean(maker.isPresent());
        if (maker.isPresent()) {
          answer.writeLong(maker.get().number());
          answer.writeByte(maker.get().evidence().ordinal());
          answer.writeUTF(maker.get().thread());
        }
      }
      case CARRIES -> {
        answers.carries(port, number);
        answer.writeByte(0);
      }
      case CARRIES_NONE -> answers.carries(port, 0);
      default -> throw new IOException("unknown question " + question);
    }
    to.write(bytes.toByteArray());
  }

  @Override
  public void close() throws IOException {
    connection.close();
  }
}
