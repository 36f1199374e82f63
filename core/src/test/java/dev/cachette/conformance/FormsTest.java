// SPDX-License-Identifier: Apache-2.0
package dev.cachette.conformance;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.cachette.Generator;
import dev.cachette.http.Query;
import dev.cachette.internal.content.Multipart;
import dev.cachette.internal.content.Part;
import dev.cachette.internal.uri.Percent;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.apache.commons.fileupload.MultipartStream;
import org.junit.jupiter.api.Test;

/** Other implementations write and read the same forms, URL-encoded and multipart. */
class FormsTest {

  private static final int CASES = 1_000;

  @Test
  void encodedFormsAreReadAsTheyWereWrittenElsewhere() {
    for (int seed = 0; seed < CASES; seed++) {
      Generator generator = new Generator(seed);
      Map<String, List<String>> fields = new LinkedHashMap<>();
      List<String> written = new ArrayList<>();
      for (int number = generator.below(5); number >= 0; number--) {
        String name = "n" + generator.below(3) + generator.text();
        String value = generator.text();
        fields.computeIfAbsent(name, unused -> new ArrayList<>()).add(value);
        written.add(encoded(name) + "=" + encoded(value));
        assertEquals(value, URLDecoder.decode(Percent.encodeForm(value), StandardCharsets.UTF_8));
      }

      Query read = Query.read(String.join("&", written));

      assertEquals(fields.keySet(), read.names(), "seed " + seed);
      fields.forEach((name, values) -> assertEquals(values, read.all(name), written::toString));
    }
  }

  private static String encoded(String text) {
    return URLEncoder.encode(text, StandardCharsets.UTF_8);
  }

  @Test
  void partsAreReadAsElsewhere() throws IOException {
    for (int seed = 0; seed < CASES; seed++) {
      Generator generator = new Generator(seed);
      String boundary = "b" + generator.word(12);
      byte[] body = multipart(generator, boundary);

      List<byte[]> elsewhere = new ArrayList<>();
      List<String> heads = new ArrayList<>();
      MultipartStream stream =
          new MultipartStream(
              new ByteArrayInputStream(body),
              boundary.getBytes(StandardCharsets.US_ASCII),
              4_096,
              null);
      for (boolean more = stream.skipPreamble(); more; more = stream.readBoundary()) {
        heads.add(stream.readHeaders());
        ByteArrayOutputStream content = new ByteArrayOutputStream();
        stream.readBodyData(content);
        elsewhere.add(content.toByteArray());
      }

      List<Part> parts = Multipart.parts(body, boundary);
      assertEquals(elsewhere.size(), parts.size(), "seed " + seed);
      for (int at = 0; at < parts.size(); at++) {
        assertArrayEquals(elsewhere.get(at), parts.get(at).body().bytes(), "seed " + seed);
        String name = parts.get(at).name().orElseThrow();
        assertEquals(true, heads.get(at).contains("name=\"" + name + "\""), heads.get(at));
      }
    }
  }

  private static byte[] multipart(Generator generator, String boundary) throws IOException {
    ByteArrayOutputStream body = new ByteArrayOutputStream();
    for (int number = generator.below(4); number >= 0; number--) {
      write(body, "--" + boundary + "\r\n");
      write(body, "Content-Disposition: form-data; name=\"n" + generator.word(3) + "\"\r\n");
      write(body, generator.one("", "Content-Type: text/plain\r\n", "X-A: b\r\n") + "\r\n");
      write(body, generator.one("", generator.text(), "\r\n", "x--" + boundary, "\0\1\r\n-\n"));
      write(body, "\r\n");
    }
    write(body, "--" + boundary + "--\r\n");
    return body.toByteArray();
  }

  private static void write(ByteArrayOutputStream into, String text) throws IOException {
    into.write(text.getBytes(StandardCharsets.UTF_8));
  }
}
