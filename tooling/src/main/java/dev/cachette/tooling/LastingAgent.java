// SPDX-License-Identifier: Apache-2.0
package dev.cachette.tooling;

import dev.cachette.internal.tunnel.TunnelJar;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;

/**
 * The agent for a JVM that someone else starts: its calls are led to a recorder while there is one,
 * and go directly to their services otherwise.
 */
public final class LastingAgent {

  private LastingAgent() {}

  /**
   * Writes it, and returns the option of the JVM.
   *
   * @param folder where its files are
   * @param certificatePem the certificate of the recorder's authority
   * @param port the recorder's port on this machine; it asks at the port after it
   * @throws ToolingException if this program does not run from its jar
   * @throws IOException if the files cannot be written
   */
  public static String write(Path folder, String certificatePem, int port) throws IOException {
    Path jar =
        ProxiedCommand.ownJar()
            .orElseThrow(
                () ->
                    new ToolingException(
                        "The agent is made of the jar of this program, but it runs from classes."));
    Files.createDirectories(folder);
    Path certificate = folder.resolve("authority-certificate.pem");
    Files.writeString(certificate, certificatePem);
    Path agent = folder.resolve("cachette-agent.jar");
    Path fresh = Files.createTempFile(folder, "cachette-agent", ".jar");
    TunnelJar.write(jar, fresh);
    // A JVM that uses the file goes on with what it has opened.
    Files.move(fresh, agent, StandardCopyOption.REPLACE_EXISTING);
    return TunnelJar.at(agent, jar)
        .option(new TunnelJar.Recorder(port, certificate, port + 1, true));
  }
}
