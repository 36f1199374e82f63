// SPDX-License-Identifier: Apache-2.0
package dev.cachette.identity;

import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.identity.option.IdentityFault;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** The logins of a client, right and wrong ones, as its row in docs/identity-clients.md. */
public final class LoginTable {

  private static final Path PAGE = Path.of("../docs/identity-clients.md");

  private static final List<IdentityFault> WRONG_TOKENS =
      List.of(
          IdentityFault.UNKNOWN_KEY,
          IdentityFault.WRONG_SIGNATURE,
          IdentityFault.UNSIGNED,
          IdentityFault.WRONG_ISSUER,
          IdentityFault.WRONG_AUDIENCE,
          IdentityFault.WRONG_NONCE,
          IdentityFault.EXPIRED,
          IdentityFault.NOT_YET_VALID);

  private LoginTable() {}

  /** Signs in once, from the beginning. */
  public interface Login {

    /** Returns true if the user is signed in, false if the client refuses that. */
    boolean signsIn() throws Exception;
  }

  /** Signs in with each fault, and checks what the page says of it. */
  public static void assertRow(String client, IdentityProvider id, Login login) throws Exception {
    List<String> cells = new ArrayList<>(List.of(client));
    assertTrue(login.signsIn(), "a right login");
    id.rotateKeys();
    cells.add(login.signsIn() ? "signs in" : "fails");
    for (IdentityFault fault : WRONG_TOKENS) {
      id.next(fault);
      cells.add(login.signsIn() ? "**accepts**" : "refuses");
    }
    assertTrue(login.signsIn(), "a right login after the wrong ones");
    assertWritten(client, "| " + String.join(" | ", cells) + " |");
  }

  /** With -Dguide.refresh=true, it is written. */
  private static void assertWritten(String client, String row) throws IOException {
    List<String> lines = new ArrayList<>(Files.readAllLines(PAGE));
    if (Boolean.getBoolean("guide.refresh")) {
      int at = 0;
      while (!lines.get(at).startsWith("| " + client + " |")
          && !lines.get(at).equals("<!-- end -->")) {
        at++;
      }
      if (lines.get(at).startsWith("|")) {
        lines.set(at, row);
      } else {
        lines.add(at - 1, row);
      }
      Files.write(PAGE, lines);
    }
    assertTrue(
        lines.contains(row),
        "docs/identity-clients.md differs; run with -Dguide.refresh=true.\n" + row);
  }
}
