// SPDX-License-Identifier: Apache-2.0
package dev.cachette;

import static dev.cachette.answer.Answers.text;
import static dev.cachette.answer.Faults.connectionRefused;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.IOException;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Violations of HTTP/2 are answered as RFC 9113 says, with the error code that it names. */
@Timeout(60)
class Http2ErrorsTest {

  private static final byte[] PREFACE =
      "PRI * HTTP/2.0\r\n\r\nSM\r\n\r\n".getBytes(StandardCharsets.US_ASCII);
  private static final byte[] SETTINGS = HexFormat.of().parseHex("000000040000000000");

  private static final int HEADERS = 1;
  private static final int RST_STREAM = 3;
  private static final int PING = 6;
  private static final int GOAWAY = 7;

  /** The bytes of frames: length, type, flags, stream, payload. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          ok | HEADERS 200 | 00000a0105000000018204032f6f6b86010161
          no method | HEADERS 400 | 00000901050000000104032f6f6b86010161
          no path | HEADERS 400 | 0000050105000000018286010161
          empty path | RST_STREAM 1 | 00000701050000000182040086010161
          uppercase header | RST_STREAM 1 | 0000120105000000018204032f6f6b860101610004582d55700161
          pseudo after | RST_STREAM 1 | 00000f01050000000100016101628204032f6f6b86010161
          unknown pseudo | RST_STREAM 1 | 0000120105000000018204032f6f6b8601016100043a666f6f0162
          twice method | RST_STREAM 1 | 00000b0105000000018204032f6f6b8601016183
          te gzip | RST_STREAM 1 | 0000130105000000018204032f6f6b860101610002746504677a6970
          data on 0 | GOAWAY 1 | 000003000000000000616263
          headers on 0 | GOAWAY 1 | 00000a0105000000008204032f6f6b86010161
          even stream | GOAWAY 1 | 00000a0105000000028204032f6f6b86010161
          hpack garbage | GOAWAY 9 | 000009010500000001ffffffffffffffff0f
          hpack bad index | GOAWAY 9 | 000001010500000001fe
          settings len | GOAWAY 6 | 000003040000000000616263
          settings ack payload | GOAWAY 6 | 000006040100000000616263646566
          settings on stream | GOAWAY 1 | 000000040000000001
          settings bad push | GOAWAY 1 | 000006040000000000000200000007
          settings bad window | GOAWAY 3 | 0000060400000000000004ffffffff
          settings bad frame | GOAWAY 1 | 000006040000000000000500000001
          ping len | GOAWAY 6 | 000003060000000000616263
          ping on stream | GOAWAY 1 | 0000080600000000013132333435363738
          window 0 | GOAWAY 1 | 00000408000000000000000000
          window overflow | GOAWAY 3 | 0000040800000000007fffffff
          window len | GOAWAY 6 | 000003080000000000616263
          rst idle | GOAWAY 1 | 00000403000000000100000001
          rst len | GOAWAY 6 | 00000a0104000000018204032f6f6b860101610000020300000000016162
          push promise | GOAWAY 1 | 00000e050400000001000000028204032f6f6b86010161
          goaway len | GOAWAY 6 | 000003070000000000616263
          continuation | GOAWAY 1 | 00000a0904000000018204032f6f6b86010161
          mixed | GOAWAY 1 | 00000a0101000000018204032f6f6b86010161000000040000000000
          data idle | GOAWAY 1 | 00000100000000000178
          padding too long | GOAWAY 1 | 00000b010d00000001ff8204032f6f6b86010161
          priority self | RST_STREAM 1 | 0000050200000000010000000101
          unknown | HEADERS 200 | 000003ee000000000061626300000a0105000000018204032f6f6b86010161
          """)
  void isAnsweredWithItsErrorCode(String what, String expected, String frames) throws Exception {
    try (Cachette net =
        Cachette.open(
            Settings.defaults().withoutInterception().unexpectedCalls(UnexpectedCalls.WARN))) {
      net.stub("GET /ok").answer(text("fine"));

      String answers = answers(net.baseUrl(), HexFormat.of().parseHex(frames), expected);

      assertTrue(answers.contains(expected), () -> what + ": " + answers);
    }
  }

  /** Some clients fail a call that is answered if its connection ends before they have flushed. */
  @Test
  void theClientClosesAnAnnouncedConnection() throws Exception {
    try (Cachette net = Cachette.open(Settings.defaults().withoutInterception())) {
      net.stub("GET /ok").answer(text("fine"), connectionRefused());

      byte[] request = HexFormat.of().parseHex("00000a0105000000018204032f6f6b86010161");
      byte[] ping = HexFormat.of().parseHex("0000080600000000003132333435363738");
      String answers = answers(net.baseUrl(), request, "GOAWAY 0; ", ping, "PING");

      assertTrue(answers.endsWith("PING; "), answers);
    }
  }

  private static String answers(String address, byte[] frames, String expected) throws IOException {
    return answers(address, frames, expected, new byte[0], expected);
  }

  /**
   * Returns the frames that come.
   *
   * @param frames sent at once
   * @param wanted the answer after which more frames are sent
   * @param last the answer to them, after which the connection is closed
   */
  private static String answers(
      String address, byte[] frames, String wanted, byte[] more, String last) throws IOException {
    URI at = URI.create(address);
    StringBuilder answers = new StringBuilder();
    try (Socket socket = new Socket(at.getHost(), at.getPort())) {
      socket.setSoTimeout(20_000);
      ByteArrayOutputStream all = new ByteArrayOutputStream();
      all.writeBytes(PREFACE);
      all.writeBytes(SETTINGS);
      all.writeBytes(frames);
      socket.getOutputStream().write(all.toByteArray());
      DataInputStream in = new DataInputStream(socket.getInputStream());
      while (answers.indexOf(last) < 0) {
        int head = in.read();
        if (head < 0) {
          break;
        }
        int length = head << 16 | in.readUnsignedShort();
        int type = in.readUnsignedByte();
        in.readUnsignedByte();
        in.readInt();
        answers.append(described(type, in.readNBytes(length))).append("; ");
        if (answers.toString().endsWith(wanted)) {
          socket.getOutputStream().write(more);
        }
      }
    }
    return answers.toString();
  }

  private static String described(int type, byte[] payload) {
    return switch (type) {
      case HEADERS -> "HEADERS " + status(payload);
      case RST_STREAM -> "RST_STREAM " + payload[3];
      case GOAWAY -> "GOAWAY " + payload[7];
      case PING -> "PING";
      default -> "frame of type " + type;
    };
  }

  /** By the static table of HPACK (RFC 7541, appendix A). */
  private static int status(byte[] head) {
    return switch (head[0] & 0xff) {
      case 0x88 -> 200;
      case 0x8c -> 400;
      default -> 0;
    };
  }
}
