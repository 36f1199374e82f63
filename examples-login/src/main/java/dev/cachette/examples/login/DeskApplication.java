// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.login;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.context.annotation.Bean;
import org.springframework.web.client.RestClient;

/** Starts the desk. */
@SpringBootApplication
public class DeskApplication {

  /** Starts it. */
  public static void main(String[] arguments) {
    SpringApplication.run(DeskApplication.class, arguments);
  }

  @Bean
  RestClient berths() {
    return RestClient.create("https://berths.example");
  }
}
