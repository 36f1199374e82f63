// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.berths;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.context.annotation.Bean;

/** The berth service as a web application. */
@SpringBootApplication
public class BerthApplication {

  /** Starts it. */
  public static void main(String[] arguments) {
    SpringApplication.run(BerthApplication.class, arguments);
  }

  @Bean
  Berths berths() {
    return new Berths();
  }
}
