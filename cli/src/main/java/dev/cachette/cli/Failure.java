package dev.cachette.cli;

import dev.cachette.cassette.CassetteException;
import dev.cachette.stubfile.StubFileException;
import java.io.FileNotFoundException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileSystemException;
import java.nio.file.NoSuchFileException;

/** Why something could not be done, in words for the user; never with a stack trace. */
class Failure extends RuntimeException {

  private static final long serialVersionUID = 1;

  Failure(String message) {
    super(message);
  }

  /** What is said of a failure, in one line; of stub files, a line a problem. */
  static String line(Throwable failure) {
    if (failure instanceof StubFileException stubs) {
      return stubs.getMessage();
    }
    if (failure instanceof UncheckedIOException unchecked && unchecked.getMessage() != null) {
      return oneLine(reason(unchecked.getCause()));
    }
    if (failure instanceof IOException io) {
      return oneLine(reason(io));
    }
    boolean ours =
        failure instanceof Failure
            || failure instanceof CassetteException
            || failure instanceof IllegalArgumentException
            || failure instanceof IllegalStateException;
    return oneLine(
        ours ? String.valueOf(failure.getMessage()) : "unexpected, a defect: " + failure);
  }

  /** The reason, without the name of an exception where words say it. */
  static String reason(IOException failure) {
    if (failure instanceof NoSuchFileException || failure instanceof FileNotFoundException) {
      return "there is no file " + failure.getMessage() + ".";
    }
    if (failure instanceof AccessDeniedException denied) {
      return denied.getFile() + " may not be read or written by this user.";
    }
    if (failure instanceof FileSystemException system && system.getReason() != null) {
      return system.getFile() + ": " + system.getReason() + ".";
    }
    return failure.getMessage() == null ? failure.toString() : failure.getMessage();
  }

  /** A text without its line breaks. */
  static String oneLine(String text) {
    return text.strip().replaceAll("\\s*\\R\\s*", " ");
  }
}
