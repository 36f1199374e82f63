// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.login;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;

/** Starts the desk. */
@SpringBootApplication
public class DeskApplication {

  /** Starts it. */
  public static void main(String[] arguments) {
    SpringApplication.run(DeskApplication.class, arguments);
  }
}
