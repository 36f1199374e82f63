// SPDX-License-Identifier: Apache-2.0
package dev.cachette.cli;

import dev.cachette.cassette.CassetteException;
import dev.cachette.stubfile.StubFileException;
import dev.cachette.tooling.ToolingException;
import dev.cachette.verification.StoreException;
import java.io.FileNotFoundException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileSystemException;
import java.nio.file.NoSuchFileException;

/** A failure of a command in words for the user; never with a stack trace. */
class Failure extends ToolingException {

  private static final long serialVersionUID = 1;

  Failure(String message) {
    super(message);
  }

  /** Returns the message for a failure, in one line; for stub files, one line per problem. */
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
        failure instanceof ToolingException
            || failure instanceof CassetteException
            || failure instanceof StoreException
            || failure instanceof IllegalArgumentException
            || failure instanceof IllegalStateException;
    return oneLine(
        ours
            ? String.valueOf(failure.getMessage())
            : "internal error, please report it: " + failure);
  }

  /** Returns the reason, without the name of an exception if there are words. */
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
}
