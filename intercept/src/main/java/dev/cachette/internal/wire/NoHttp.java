package dev.cachette.internal.wire;

/** What is said of connections that are no HTTP. */
final class NoHttp {

  private NoHttp() {}

  static String summary(Destination destination) {
    return "a connection to " + destination + " that is no HTTP";
  }

  static String explanation(Destination destination, String what) {
    return String.format(
        "A connection to %s %s. It was closed, and nothing has left this machine.\n\n"
            + "Likely cause: a database, a broker, a mail server.\n\n"
            + "Mend: net.letThrough(\"%s\"), where the test is meant to reach it; or give the code "
            + "a local one, which Cachette never touches.\n",
        destination, what, destination);
  }
}
