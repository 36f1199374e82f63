// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.disk;

import dev.cachette.cassette.Exchange;
import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import dev.cachette.internal.cassette.Merge;
import dev.cachette.internal.cassette.RecordedExchanges;
import dev.cachette.internal.cassette.Varying;
import java.io.FileDescriptor;
import java.io.FileOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;

/** Another JVM that records onto a cassette, one exchange after the other, and says so. */
final class RecordingJvm {

  private RecordingJvm() {}

  /** Takes the file, a name for what it records, and how much. */
  public static void main(String[] arguments) throws IOException {
    OutputStream out = new FileOutputStream(FileDescriptor.out);
    Path file = Path.of(arguments[0]);
    int count = Integer.parseInt(arguments[2]);
    out.write("ready\n".getBytes(StandardCharsets.US_ASCII));
    for (int number = 1; number <= count; number++) {
      add(file, arguments[1] + "/" + number);
      out.write("written\n".getBytes(StandardCharsets.US_ASCII));
    }
  }

  static void add(Path path, String name) {
    try (CassetteFile file = new CassetteFile(path)) {
      RecordedExchanges before = file.open();
      Merge merge = new Merge(before, List.of(exchange(name)), false, Varying.none());
      file.save(merge, Instant.EPOCH, "test");
    }
  }

  private static Exchange exchange(String name) {
    Response response = new Response(200, Headers.none(), Body.of("tides ".repeat(500)));
    return Exchange.answered(Instant.EPOCH, Duration.ZERO, "HTTP/1.1", request(name), response);
  }

  static Request request(String name) {
    Uri uri = Uri.parse("https://tides.example/v1/" + name);
    return new Request("GET", uri, Headers.none(), Body.empty());
  }
}
