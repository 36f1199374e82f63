// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import picocli.CommandLine;

/** Whatever is wrong, there is one clear line, the right exit code, and no stack trace. */
@Tag("once")
class BadInputTest {

  @TempDir Path folder;

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "show nowhere.har | 3 | there is no file nowhere.har",
        "show . | 3 | is a folder",
        "show broken.har | 3 | line 1, column",
        "show broken.har --status many | 2 | --status': write it as 404, 4xx or 400-499",
        "show | 2 | Missing required parameter",
        "shwo | 2 | unknown command or option \"shwo\". Did you mean show or publish or refresh?"
            + " See: cachette ",
        "show broken.har --jsn | 2 | unknown command or option \"--jsn\". Did you mean --json?",
        "compare broken.har | 2 | AFTER",
        "check notes.doc | 3 | there is no file notes.doc",
        "check broken.txt | 3 | neither a cassette",
        "check broken.stubs.yaml | 1 | 1 finding",
        "serve | 2 | nothing to serve. Fix:",
        "serve --identity ftp://id --user mara | 2 | --identity needs an http or https URL",
        "serve --identity http://localhost:8099 | 2 | nobody can sign in at http://localhost:8099.",
        "serve --identity http://id.example:99999 --user mara | 2 | --identity needs an http",
        "serve --identity http:///x --user mara | 2 | --identity needs an http or https URL",
        "serve --user mara | 2 | Fix: add --identity URL.",
        "serve --login-page | 2 | Fix: add --identity URL.",
        "serve broken.stubs.yaml | 3 | broken.stubs.yaml:2:1: not valid YAML",
        "check . | 3 | is a folder. Fix: name its files: ./*",
        "serve . | 3 | is a folder",
        "serve nowhere.yaml | 3 | there is no file nowhere.yaml",
        "serve bare.openapi.yaml | 3 | bare.openapi.yaml has no server with a host",
        "serve broken.openapi.yaml | 3 | broken.openapi.yaml:3: /paths/~1a: nothing found at",
        "check good.stubs.yaml --openapi nowhere.yaml | 3 | there is no file nowhere.yaml",
        "check good.stubs.yaml --openapi bare.openapi.yaml | 3 | Fix: give its origin: --openapi",
        "serve good.stubs.yaml --port 70000 | 2 | '--port': a port is a number from 0 to",
        "serve good.stubs.yaml --control x | 2 | '--control': a port is a number",
        "serve good.stubs.yaml --listen no.such.host.example | 2 | '--listen': unknown address",
        "serve good.stubs.yaml --for tides | 2 | '--for': An origin is",
        "serve good.stubs.yaml --control 0 --listen 0.0.0.0 --no-token | 2 | needs a token",
        "serve good.stubs.yaml --control 0 --token a --no-token | 2 | exclude each other",
        "serve good.stubs.yaml --ca broken.txt | 3 | Fix: delete it",
        "record --to x.json | 2 | ends in .har",
        "capture --to cases --app http://localhost:1 | 2 | which application? Fix:",
        "capture --to cases --app http://localhost:1 | 2 | cachette agent --outgoing-port PORT",
        "capture --to cases --app localhost | 2 | '--app': An origin is",
        "capture --to cases -- true | 2 | --app",
        "capture --to . --app http://localhost:1 -- true | 3 | broken.har cannot be read: line 1",
        "capture --to cases --app http://localhost:1 --outgoing-port 65535 -- true | 2 | to 65534",
        "capture --to cases --app http://localhost:1 --session ? -- true | 2 | no letter or digit",
        "capture --to cases --app http://localhost:1 --background x -- true | 2 | x",
        "capture --to cases --app http://localhost:1 --from nowhere.har | 3 | no cassette",
        "capture --to cases --app http://localhost:1 --listen 70000 -- true | 2 | a port is a"
            + " number",
        "capture --to cases --app http://localhost:1 --listen no.such.host.example:1 -- true | 2"
            + " | '--listen': unknown address",
        "replay nowhere --app http://localhost:1 -- true | 2 | There is no folder",
        "replay . --app http://localhost:1 -- true | 3 | broken.har cannot be read: line 1",
        "replay empty --app http://localhost:1 --outgoing-port 1 | 3 | There is no case in",
        "agent | 2 | --outgoing-port",
        "agent --outgoing-port 0 | 2 | from 1 to 65534",
        "verify nowhere --provider a --against http://localhost | 3 | nowhere does not exist. Fix:",
        "verify good.stubs.yaml --provider a --against http://localhost | 3 | but not a contract",
        "verify . --against http://localhost | 2 | --provider",
        "publish . --to store --consumer-version 1 | 3 | has no contract",
        "publish . --to store --consumer-version 1 --branch ? | 2 | A branch must consist of",
        "label berths --in . --branch main | 2 | not a name with a version, such as berths@1.4",
        "label berths@1 --in . | 2 | no label. Fix: --environment NAME",
        "label berths@1 --in store --branch main | 3 | store does not exist. Fix:",
        "compat store --release berths@1.4 | 2 | --release and --to go together",
        "compat git+file:///nowhere | 3 | git clone of file:///nowhere failed",
        "check good.stubs.yaml --unused | 2 | --unused needs an API description",
        "compare a@1 b@1 --in store | 2 | two versions of one consumer",
        "serve good.stubs.yaml --store store | 2 | --control PORT",
        "record -- true | 2 | --to",
        "record --to x.har -- no-such-command | 3 | no-such-command cannot be run",
        "record --to x.har --upstream nonsense | 2 | An origin is a scheme, a host and",
        "record --to x.har --upstream https://a.example/v1 | 2 | An origin is",
        "refresh lonely.har --at a=b | 2 | An origin is",
        "refresh lonely.har --trusted-ca broken.txt | 2 | broken.txt",
        "refresh lonely.har --trusted-ca nowhere.pem | 2 | nowhere.pem",
        "refresh lonely.har | 3 | cannot be reached",
        "redact broken.har --secret KEY= | 2 | has no value",
        "redact broken.har --secret KEY=abc | 2 | too short",
        "redact broken.har broken.har --to x.har | 2 | --to takes one file",
        "convert broken.txt | 3 | no line METHOD URL",
        "convert good.stubs.yaml | 2 | --to good.stubs.yaml.har",
        "convert lonely.har --exchange 9 | 3 | there is no exchange 9",
      })
  void isToldInOneLine(String arguments, int code, String said) throws Exception {
    Files.createDirectories(folder.resolve("empty"));
    Files.writeString(folder.resolve("broken.har"), "{\"log\": ");
    Files.writeString(folder.resolve("broken.txt"), "nothing\n");
    Files.writeString(folder.resolve("broken.stubs.yaml"), "stubs: [\n");
    Files.writeString(folder.resolve("bare.openapi.yaml"), "openapi: 3.1.0\npaths: {}\n");
    Files.writeString(
        folder.resolve("broken.openapi.yaml"), "openapi: 3.1.0\npaths:\n  /a: {$ref: '#/b'}\n");
    Files.writeString(
        folder.resolve("good.stubs.yaml"), "stubs: [{request: 'GET /{any}', answer: 200}]\n");
    Files.writeString(
        folder.resolve("lonely.har"),
        """
        {"log": {"version": "1.2", "creator": {"name": "x", "version": "1"}, "entries": [
          {"startedDateTime": "2031-04-02T04:10:00.000Z", "time": 1,
           "request": {"method": "GET", "url": "http://127.0.0.1:1/", "httpVersion": "HTTP/1.1",
             "headers": [], "cookies": [], "queryString": [], "headersSize": -1, "bodySize": 0},
           "response": {"status": 204, "statusText": "", "httpVersion": "HTTP/1.1", "headers": [],
             "cookies": [], "content": {"size": 0, "mimeType": ""}, "redirectURL": "",
             "headersSize": -1, "bodySize": -1},
           "cache": {}, "timings": {"send": 0, "wait": 1, "receive": 0}}]}}
        """);

    Run run = Run.in(folder, arguments.split(" "));

    assertEquals(code, run.code(), run.err());
    assertTrue(run.err().contains(said), run.err());
    assertFalse((run.out() + run.err()).contains("\tat "), run.err());
    if (code != Tool.DOES_NOT_HOLD) {
      assertEquals(
          1, run.err().lines().filter(line -> line.startsWith("cachette: ")).count(), run.err());
    }
    if (code == CommandLine.ExitCode.USAGE) {
      assertEquals(1, run.err().lines().count(), run.err());
    }
  }

  @Test
  void aPortInUseIsReported() throws Exception {
    Files.writeString(
        folder.resolve("good.stubs.yaml"), "stubs: [{request: 'GET /{any}', answer: 200}]\n");
    try (ServerSocket taken = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      Run run =
          Run.in(
              folder,
              "serve",
              "good.stubs.yaml",
              "--ca",
              "a.pem",
              "--port",
              Integer.toString(taken.getLocalPort()));

      assertEquals(3, run.code());
      assertTrue(run.err().contains("Fix: choose another port"), run.err());
    }
  }

  @Test
  void aFullDiskIsReported() throws Exception {
    if (!Files.exists(Path.of("/dev/full"))) {
      return;
    }
    Path arrival =
        Path.of("..", "examples", "src", "test", "cassettes", "harbour", "arrival.har")
            .toAbsolutePath();
    Process process =
        Run.builder("show", arrival.toString())
            .redirectOutput(Path.of("/dev/full").toFile())
            .start();
    String said = new String(process.getErrorStream().readAllBytes());

    assertEquals(3, process.waitFor(), said);
    assertTrue(said.contains("standard output cannot be written to"), said);
    Run convert = Run.of("convert", arrival.toString(), "--to", "/dev/full");
    assertEquals(3, convert.code());
    assertTrue(convert.err().startsWith("cachette: "), convert.err());
    assertFalse(Files.isRegularFile(Path.of("/dev/full")), "a device stays one");
  }

  @Test
  void aReaderThatStopsEarlyIsNotAFailure() throws Exception {
    Path arrival =
        Path.of("..", "examples", "src", "test", "cassettes", "harbour", "arrival.har")
            .toAbsolutePath();
    Process process = Run.builder("show", arrival.toString(), "--full", "--quiet").start();
    process.getInputStream().close();
    String said = new String(process.getErrorStream().readAllBytes());

    assertEquals(0, process.waitFor(), said);
    assertEquals("", said);
  }

  @Test
  void aReadOnlyFolderIsReported() throws Exception {
    Path arrival =
        Path.of("..", "examples", "src", "test", "cassettes", "harbour", "arrival.har")
            .toAbsolutePath();
    // Nobody may write there, not even root.
    Run run = Run.of("convert", arrival.toString(), "--to", "/proc/stubs.yaml");

    assertEquals(3, run.code());
    assertTrue(run.err().startsWith("cachette: "), run.err());
    assertEquals(1, run.err().lines().count(), run.err());
  }

  @Test
  void everyCommandHelpsWithAnExample() throws Exception {
    for (String command :
        new String[] {
          "demo", "serve", "record", "show", "check", "compare", "refresh", "redact", "convert",
          "schema"
        }) {
      Run run = Run.of(command, "--help");
      assertEquals(0, run.code());
      assertTrue(run.out().contains("  cachette " + command), run.out());
    }
    assertTrue(Run.of("generate-completion").out().contains("complete "), "completion");
    assertTrue(Run.of("--version").out().startsWith("cachette 0."), "version");
  }
}
