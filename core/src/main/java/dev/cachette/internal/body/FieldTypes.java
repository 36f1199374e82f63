// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.body;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;

/** The types of fields whose values arrive as text. */
public interface FieldTypes {

  /** Returns the value of a field; a list if the field is one. */
  JsonNode value(String name, List<String> texts);

  /** Returns true if the value of a field is JSON. */
  boolean isJson(String name);

  /** Returns true if the whole body is a string. */
  boolean isString();
}
