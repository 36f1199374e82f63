// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** Stubs of curl commands: curl itself judges whether they match. */
@Timeout(120)
class CurlCommandsTest {

  /** Commands for a shell, each for a request line of its own. */
  private static final List<String> COMMANDS =
      List.of(
          "curl http://tides.example/1",
          "curl -sSLd 'day=1&unit=m' http://tides.example/2",
          "curl -d @body.json http://tides.example/3",
          "curl -H 'content-type: application/json' -d '{\n"
              + "  \"a\": [1, 2]\n"
              + "}' http://tides.example/4",
          "curl --json '{\"a\":' --json '1}' http://tides.example/5",
          "curl -F vessel=Kittiwake -F 'plan=@plan.txt;type=text/markdown' http://tides.example/6",
          "curl -F 'note=<plan.txt' --form-string 'raw=@plan;x' http://tides.example/7",
          "curl -T plan.txt http://tides.example/8/",
          "curl --data-binary @plan.txt -H 'content-type: text/plain' http://tides.example/9",
          "curl --data-raw $'it\\'s\\nnew \\u00e9 \\x41\\101' http://tides.example/10",
          "curl -G -d a=1 --data-urlencode 'q=a b&c' 'http://tides.example/11?z=9'",
          "curl --data-urlencode note@plan.txt http://tides.example/12",
          "curl -X DELETE -u mara:x -b a=b -m 5 -A desk -e http://a.example/"
              + " http://tides.example/13",
          "curl -I -H 'X-Desk:  north' --max-time 5 http://tides.example/14",
          "curl \\\n  --url \"http://tides.example/15\" \\\n  --url-query 'a=b c' \\\n  -d ''",
          "curl http://tides.example/16 --next -d x=1 http://tides.example/17",
          "curl -XPOST -Hx-desk:south -dvessel=Fulmar http://tides.example/18");

  @TempDir Path folder;

  @BeforeEach
  void createFiles() throws Exception {
    Files.writeString(folder.resolve("body.json"), "{\"a\":\n 1.50}\n");
    Files.writeString(folder.resolve("plan.txt"), "line 1\nline 2 ü\n");
  }

  @Test
  void eachCommandIsAnsweredByItsStub() throws Exception {
    Files.writeString(folder.resolve("calls.txt"), String.join("\n\n", COMMANDS));
    Run convert = Run.in(folder, "convert", "calls.txt", "--to", "calls.stubs.yaml");
    assertEquals(0, convert.code(), convert.err());
    assertTrue(convert.err().startsWith("written to"), convert.err());

    try (Run.Going serve = new Run.Going("serve", folder.resolve("calls.stubs.yaml").toString())) {
      String proxy = serve.message("serving at").split(" ")[0];
      for (String command : COMMANDS) {
        assertEquals("", answersOtherThan200(command, proxy), command);
      }
      assertEquals(0, serve.stop());
    }
  }

  private String answersOtherThan200(String command, String proxy) throws Exception {
    ProcessBuilder shell =
        new ProcessBuilder("bash", "-c", "curl() { command curl -sv \"$@\"; }\n" + command)
            .directory(folder.toFile())
            .redirectErrorStream(true);
    shell.environment().put("http_proxy", proxy);
    Process process = shell.start();
    process.getOutputStream().close();
    String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    process.waitFor();
    boolean good = said.contains("< HTTP/1.1 200") && !said.contains("Unexpected call");
    return good ? "" : said;
  }
}
