// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.explain;

import dev.cachette.internal.finding.CheckText;
import dev.cachette.result.Check;

/** Says in one clause why a stub does not answer a call, from the check that failed. */
final class MissReason {

  private MissReason() {}

  /** Returns the clause, without a full stop. */
  static String of(Check miss) {
    return switch (miss.condition()) {
      case Obstacle.NO_ANSWER -> "It has no answer yet";
      case Obstacle.USED_UP -> "It is used up";
      case Obstacle.AFTER, Obstacle.FROM -> "It is not active yet";
      case Obstacle.UNTIL -> "It has expired";
      case "basic", "bearer token" -> "The credentials differ";
      default -> "It does not match because of " + place(CheckText.name(miss));
    };
  }

  /** Returns the reason in a few words: {@code JSON $.vessel.draught differs}. */
  static String inShort(Check miss) {
    String differs = miss.differences().get(0).isMissing() ? " is missing" : " differs";
    return switch (miss.condition()) {
      case Obstacle.NO_ANSWER -> "it has no answer yet";
      case Obstacle.USED_UP -> "it is used up";
      case Obstacle.AFTER, Obstacle.FROM -> "it is not active yet";
      case Obstacle.UNTIL -> "it has expired";
      case "basic", "bearer token" -> "the credentials differ";
      case "condition" -> "its predicate is false";
      default -> place(CheckText.name(miss)) + differs;
    };
  }

  /** Returns what the check is about, as part of a sentence. */
  static String place(String name) {
    int space = name.indexOf(' ');
    String kind = space < 0 ? name : name.substring(0, space);
    String rest = space < 0 ? "" : name.substring(space);
    return switch (kind) {
      case "json" -> "JSON" + rest;
      case "xpath" -> "XPath" + rest;
      case "graphql" -> "the GraphQL request" + rest;
      case "soap" -> "the SOAP request" + rest;
      case "form" -> "form field" + rest;
      case "query", "path" -> space < 0 ? "the " + kind : kind + " parameter" + rest;
      case "header", "cookie", "part" -> kind + rest;
      default -> "the " + name;
    };
  }
}
