// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Lines with requests, and what cannot be read in them. */
class RequestLinesTest {

  @TempDir Path folder;

  private final List<String> remarks = new ArrayList<>();

  private Path calls() {
    return folder.resolve("calls.txt");
  }

  @Test
  void commandsOfTheWindowsCommandPromptAreRead() throws Exception {
    Files.writeString(
        calls(),
        """
        curl ^"https://berths.example/v1/bookings?a=1^&b=50^%^" ^
          -X ^"PUT^" ^
          -H ^"x-desk: north^" ^
          --data-raw ^"^{^\\^"vessel^\\^":^\\^"Kittiwake^\\^"^}^"
        curl.exe "https://berths.example/v1/old" ^
          -H "x-desk: a ^ b" ^
          -d "say \\"high\\""
        """);

    String stubs = RequestLines.toStubs(calls(), StubFormat.YAML, remarks::add);

    assertEquals(
        """
        stubs:
          - request: PUT https://berths.example/v1/bookings
            query:
              a: '1'
              b: 50%
            headers:
              x-desk: north
            body:
              sameJson:
                vessel: Kittiwake
            answer:
              status: 200
          - request: POST https://berths.example/v1/old
            headers:
              x-desk: a ^ b
            body:
              sameText: say "high"
            answer:
              status: 200
        """,
        stubs);
    assertEquals(List.of(), remarks);
  }

  @Test
  void whatCannotBeReadIsNamedWithItsLine() throws Exception {
    Files.writeString(
        calls(),
        """
        curl -d @missing.json https://tides.example/1
        curl -d @- https://tides.example/2
        curl https://tides.example/3 -H
        curl -s
        curl -F vessel https://tides.example/4
        curl $'\\U7fffffff' https://tides.example/5
        curl 'https://tides.example/unclosed
        GET https://tides.example/6
        curl https://tides.example/7 \\
        """);

    String stubs = RequestLines.toStubs(calls(), StubFormat.YAML, remarks::add);

    assertEquals(
        """
        skipped, line 1: its file missing.json cannot be read
        skipped, line 2: it reads standard input, which is not known
        skipped, line 3: the option -H has no value
        skipped, line 4: the command has no URL
        skipped, line 5: the form field vessel has no =
        skipped, line 6: there is no character \\U7fffffff
        skipped, line 7: the quote ' is not closed
        skipped, line 9: it ends with a backslash
        """,
        String.join("\n", remarks) + "\n");
    assertTrue(stubs.contains("GET https://tides.example/6"), stubs);
  }

  @Test
  void aFileWithoutRequestsIsNamed() throws Exception {
    Files.writeString(calls(), "# nothing yet\n\nhello\n");

    ToolingException none =
        assertThrows(
            ToolingException.class,
            () -> RequestLines.toStubs(calls(), StubFormat.JSON, remarks::add));

    assertEquals("no line METHOD URL and no curl command in " + calls() + ".", none.getMessage());
    assertEquals(List.of("skipped, line 3: expected METHOD URL"), remarks);
  }
}
