// SPDX-License-Identifier: Apache-2.0
package dev.cachette.examples.web;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.context.annotation.Bean;
import org.springframework.web.client.RestClient;

/** The harbour desk as a web application. */
@SpringBootApplication
public class HarbourApplication {

  /** Starts it. */
  public static void main(String[] arguments) {
    SpringApplication.run(HarbourApplication.class, arguments);
  }

  @Bean
  RestClient http() {
    return RestClient.create();
  }
}
