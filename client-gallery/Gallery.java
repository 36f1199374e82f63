import static dev.cachette.Factories.bytes;
import static java.nio.charset.StandardCharsets.UTF_8;

import dev.cachette.Cachette;
import dev.cachette.calls.Call;
import java.io.PrintStream;
import java.lang.reflect.Constructor;
import java.util.ArrayList;
import java.util.List;
import org.opentest4j.AssertionFailedError;

/**
 * Tries one client or SDK in a JVM of its own: a stubbed call over HTTPS and HTTP, and a call that
 * nothing answers. Prints one line for the table in docs/clients.md.
 */
public final class Gallery {

  private static final PrintStream OUT = System.out;

  private Gallery() {}

  /** A client or an SDK, as the code under test would use it. */
  public interface Entry {

    /**
     * Makes one call, and returns what it has read.
     *
     * @param origin such as {@code https://harbour.example}, without a slash at its end
     */
    Object call(String origin) throws Exception;

    /** Returns the content type and the body that the service answers with. */
    default List<String> answer() {
      return List.of("application/json", "{\"high\":\"04:10\"}");
    }

    /** Returns what the text of the result contains. */
    default String expected() {
      return "04:10";
    }

    /** Returns the schemes that it can call. */
    default List<String> schemes() {
      return List.of("https", "http");
    }

    /** Returns the host that it calls; some SDKs know only their own. */
    default String host() {
      return "harbour.example";
    }
  }

  public static void main(String[] arguments) throws Exception {
    Constructor<?> constructor = Class.forName(arguments[0]).getDeclaredConstructor();
    constructor.setAccessible(true);
    Entry entry = (Entry) constructor.newInstance();
    List<String> found = new ArrayList<>();
    for (String scheme : List.of("https", "http")) {
      found.add(entry.schemes().contains(scheme) ? stubbed(entry, scheme) : "-");
    }
    found.add(unexpected(entry));
    OUT.println("ROW " + String.join(" | ", found));
    OUT.flush();
    // Some clients keep threads that end with the JVM only.
    Runtime.getRuntime().halt(0);
  }

  private static String stubbed(Entry entry, String scheme) {
    String origin = scheme + "://" + entry.host();
    try (Cachette net = Cachette.open()) {
      net.stub("* " + origin + "/{+rest}")
          .answer(bytes(entry.answer().get(0), entry.answer().get(1).getBytes(UTF_8)));
      String result = String.valueOf(entry.call(origin));
      List<Call> calls = net.calls().stream().toList();
      if (calls.isEmpty()) {
        return "NOT INTERCEPTED";
      }
      return result.contains(entry.expected())
          ? "yes (" + calls.get(0).protocol() + ")"
          : "READ " + result;
    } catch (Throwable failed) {
      return failure(failed);
    }
  }

  private static String unexpected(Entry entry) {
    Cachette net = Cachette.open();
    try {
      entry.call(entry.schemes().get(0) + "://" + entry.host());
    } catch (Throwable meant) {
      // Each client reports status 501 in its own way.
    }
    try {
      net.close();
      return "NOT SEEN";
    } catch (AssertionFailedError explained) {
      return explained.getMessage().contains("nexpected call")
          ? "yes"
          : explained.getMessage().lines().findFirst().orElse("");
    }
  }

  private static String failure(Throwable failed) {
    failed.printStackTrace();
    Throwable root = failed;
    while (root.getCause() != null && root.getCause() != root) {
      root = root.getCause();
    }
    return "FAILED " + root.toString().lines().findFirst().orElse("");
  }
}
