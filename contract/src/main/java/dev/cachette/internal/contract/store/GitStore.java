// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.contract.store;

import dev.cachette.verification.StoreException;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Stream;

/**
 * A store in a git repository, through git itself: each publishing is a commit that is pushed. If
 * another one was faster, it is done again upon that; one of them always gets through.
 */
final class GitStore implements FileStore {

  private static final int ATTEMPTS = 40;

  private final String url;

  /** Without a password. */
  private final String shown;

  GitStore(String url) {
    this.url = url;
    this.shown = Stores.withoutPassword(url);
  }

  @Override
  public List<String> paths() {
    return inClone(clone -> new FolderStore(clone).paths());
  }

  @Override
  public String read(String path) {
    return inClone(clone -> new FolderStore(clone).read(path));
  }

  /** Reads several things with one clone. */
  <T> T inClone(Function<Path, T> question) {
    Path clone = temporary();
    try {
      git(clone.getParent(), "clone", "--quiet", url, clone.toString());
      return question.apply(clone);
    } finally {
      delete(clone.getParent());
    }
  }

  @Override
  public void add(Map<String, String> files, String message) {
    for (int attempt = 1; attempt <= ATTEMPTS; attempt++) {
      if (inClone(clone -> pushed(clone, files, message))) {
        return;
      }
    }
    throw new StoreException(
        shown + " was changed by others " + ATTEMPTS + " times in a row. Fix: publish again.");
  }

  /** Returns false if another push was faster. */
  private boolean pushed(Path clone, Map<String, String> files, String message) {
    new FolderStore(clone).add(files, message);
    git(clone, "add", "--all");
    if (git(clone, "status", "--porcelain").isBlank()) {
      return true;
    }
    List<String> commit = new ArrayList<>();
    if (run(clone, "config", "user.email").code != 0) {
      commit.addAll(List.of("-c", "user.name=cachette", "-c", "user.email=cachette@localhost"));
    }
    commit.addAll(List.of("commit", "--quiet", "--message", message));
    git(clone, commit.toArray(String[]::new));
    Outcome push = run(clone, "push", "--quiet", "origin", "HEAD");
    boolean isLate =
        push.text.contains("[rejected]")
            || push.text.contains("[remote rejected]")
            || push.text.contains("cannot lock ref")
            || push.text.contains("fetch first");
    if (push.code != 0 && !isLate) {
      throw failed("push", push);
    }
    return push.code == 0;
  }

  private record Outcome(int code, String text) {}

  private String git(Path folder, String... arguments) {
    Outcome outcome = run(folder, arguments);
    if (outcome.code != 0) {
      throw failed(arguments[0], outcome);
    }
    return outcome.text;
  }

  private StoreException failed(String command, Outcome outcome) {
    return new StoreException(
        String.format(
            "git %s of %s failed:%n%s",
            command, shown, outcome.text.replace(url, shown).strip().indent(2).stripTrailing()));
  }

  private Outcome run(Path folder, String... arguments) {
    List<String> command = new ArrayList<>(List.of("git"));
    command.addAll(List.of(arguments));
    ProcessBuilder builder =
        new ProcessBuilder(command).directory(folder.toFile()).redirectErrorStream(true);
    builder.environment().put("GIT_TERMINAL_PROMPT", "0");
    builder.environment().put("LC_ALL", "C");
    // Of a hook or a rebase that runs this, they would name another repository.
    builder.environment().keySet().removeIf(it -> it.matches("GIT_(DIR|WORK_TREE|INDEX_FILE)"));
    try {
      Process process = builder.start();
      process.getOutputStream().close();
      String text = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
      return new Outcome(process.waitFor(), text);
    } catch (IOException missing) {
      throw new StoreException(
          "git cannot be run: " + missing.getMessage() + ". Fix: install git.", missing);
    } catch (InterruptedException stopped) {
      Thread.currentThread().interrupt();
      throw new StoreException("interrupted while running git", stopped);
    }
  }

  private static Path temporary() {
    try {
      return Files.createTempDirectory("cachette-store").resolve("clone");
    } catch (IOException full) {
      throw new StoreException("no folder for a clone can be made: " + full, full);
    }
  }

  private static void delete(Path folder) {
    try (Stream<Path> all = Files.walk(folder)) {
      all.sorted(Comparator.reverseOrder()).forEach(it -> it.toFile().delete());
    } catch (IOException left) {
      // It is in the folder for temporary files.
    }
  }

  @Override
  public String toString() {
    return shown;
  }
}
