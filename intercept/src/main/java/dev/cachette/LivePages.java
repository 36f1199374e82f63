package dev.cachette;

import dev.cachette.calls.Call;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.ServiceLoader;
import java.util.function.BiConsumer;
import org.slf4j.LoggerFactory;

/** The live page of this JVM, if there is one. */
final class LivePages {

  /** Empty until the first session that wants one, and if it could not be opened. */
  private static volatile Optional<RunPage> page = Optional.empty();

  private static boolean tried;

  private LivePages() {}

  /**
   * Opens the page, if a session wants one and none is open.
   *
   * @return what a session tells of its calls
   * @throws IllegalStateException if there is no page on the classpath
   */
  static BiConsumer<Call, String> onlooker(OptionalInt port) {
    Optional<RunPage> shown = port.isPresent() ? open(port.getAsInt()) : Optional.empty();
    return shown.<BiConsumer<Call, String>>map(it -> it::arrived).orElse((call, test) -> {});
  }

  /** A session has begun. */
  static void begin(OptionalInt port, Cachette net) {
    page.filter(shown -> port.isPresent()).ifPresent(shown -> shown.begin(net));
  }

  /** A session is about to end. */
  static void end(Cachette net) {
    page.ifPresent(shown -> shown.end(net));
  }

  private static synchronized Optional<RunPage> open(int port) {
    if (!tried) {
      RunPage found =
          ServiceLoader.load(RunPage.class, LivePages.class.getClassLoader())
              .findFirst()
              .orElseThrow(
                  () ->
                      new IllegalStateException(
                          "The live page needs dev.cachette:cachette-control. Fix: add it to the"
                              + " test classpath, or do not set cachette.page."));
      tried = true;
      try {
        String url = found.open(port);
        LoggerFactory.getLogger(Cachette.class).info("The live page is at {}", url);
        page = Optional.of(found);
      } catch (IllegalStateException taken) {
        // Another JVM of the same build may show its own.
        Session.warn("There is no live page: " + taken.getMessage());
      }
    }
    return page;
  }
}
