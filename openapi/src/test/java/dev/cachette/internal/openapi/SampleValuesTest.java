// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.openapi;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import dev.cachette.http.Body;
import dev.cachette.http.Headers;
import dev.cachette.http.Request;
import dev.cachette.http.Response;
import dev.cachette.http.Uri;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Values for schemas without an example: each is valid, or the place that needs one is named. */
class SampleValuesTest {

  private static final Request REQUEST =
      new Request("GET", Uri.parse("https://berths.example/berths"), Headers.none(), Body.empty());

  private static Description described(String schema, String version) {
    String text =
        """
        {"openapi": "%s", "info": {"title": "Berths", "version": "1"},
         "paths": {"/berths": {"get": {"responses": {"200": {"description": "",
           "content": {"application/json": {"schema": %s}}}}}}}}
        """
            .formatted(version, schema);
    return Description.read(
        new DescriptionFile() {
          @Override
          public String label() {
            return "berths.openapi.json";
          }

          @Override
          public String text() {
            return text;
          }

          @Override
          public DescriptionFile sibling(String name) {
            throw new IllegalArgumentException(name);
          }
        });
  }

  private static String valid(String schema, String version) {
    Description description = described(schema, version);
    Response response = description.example(REQUEST);
    assertEquals(
        List.of(),
        description.impossible(REQUEST, response, true),
        () -> schema + " -> " + response.text());
    return response.text();
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "{'type':'string','pattern':'^[A-Z]-\\\\d+$'}",
        "{'type':'string','pattern':'[A-Z]{2}'}",
        "{'type':'string','pattern':'^\\\\d{4}-\\\\d\\\\d$','maxLength':7}",
        "{'type':'string','pattern':'^[a-z]*$','minLength':5}",
        "{'type':'string','pattern':'^(north|south) pier(, berth [1-9])?$','minLength':18}",
        "{'type':'string','pattern':'^https?:\\\\/\\\\/[a-z.]+\\\\.example\\\\/.*$'}",
        "{'type':'string','pattern':'^\\\\+?[0-9 ()-]{7,}$'}",
        "{'type':'string','pattern':'^(?!.*secret)[a-z]{3,8}$'}",
        "{'type':'string','pattern':'^[^\\\\s@]+@[^\\\\s@]+$'}",
        "{'type':'string','pattern':'x','minLength':20,'maxLength':20}",
        "{'type':'string','minLength':3,'maxLength':3}",
        "{'type':'string','maxLength':0}",
        "{'type':'string','format':'date'}",
        "{'type':'string','format':'date-time'}",
        "{'type':'string','format':'time'}",
        "{'type':'string','format':'duration'}",
        "{'type':'string','format':'uuid'}",
        "{'type':'string','format':'email'}",
        "{'type':'string','format':'uri'}",
        "{'type':'string','format':'uri-reference'}",
        "{'type':'string','format':'hostname'}",
        "{'type':'string','format':'ipv4'}",
        "{'type':'string','format':'ipv6'}",
        "{'type':'string','format':'json-pointer'}",
        "{'type':'string','format':'regex'}",
        "{'type':'string','format':'byte'}",
        "{'type':'string','format':'password'}",
        "{'type':'integer','minimum':3,'maximum':3}",
        "{'type':'integer','exclusiveMinimum':3,'exclusiveMaximum':5}",
        "{'type':'integer','maximum':-7}",
        "{'type':'integer','exclusiveMaximum':-7,'multipleOf':5}",
        "{'type':'integer','minimum':2.5}",
        "{'type':'integer','multipleOf':12,'minimum':100,'maximum':110}",
        "{'type':'integer','format':'int32','minimum':2147483647}",
        "{'type':'number','exclusiveMinimum':0,'exclusiveMaximum':1}",
        "{'type':'number','exclusiveMinimum':1,'exclusiveMaximum':1.001}",
        "{'type':'number','multipleOf':0.25,'minimum':0.3}",
        "{'type':'number','exclusiveMaximum':0}",
        "{'type':['null','integer'],'minimum':9}",
        "{'type':'array','items':{'type':'string'},'minItems':3,'uniqueItems':true}",
        "{'type':'array','items':{'enum':['N','S','W']},'minItems':3,'uniqueItems':true}",
        "{'type':'array','items':{'type':'integer','minimum':5},'minItems':4,'uniqueItems':true}",
        "{'type':'array','items':{'type':'string','format':'uuid'},'minItems':4,"
            + "'uniqueItems':true}",
        "{'type':'array','items':{'type':'string','pattern':'^[A-Z]{3}$'},'minItems':5,"
            + "'uniqueItems':true}",
        "{'type':'array','items':{'type':'object','properties':{'id':{'type':'integer'}},"
            + "'required':['id']},'minItems':2,'uniqueItems':true}",
        "{'type':'array','maxItems':0,'items':{'type':'string'}}",
        "{'type':'array','prefixItems':[{'type':'string'},{'type':'integer'}],'items':false}",
        "{'type':'array','contains':{'const':'pilot'}}",
        "{'type':'array','contains':{'const':'pilot'},'minContains':2}",
        "{'type':'object','required':['berth','day'],'properties':{'day':{'type':'integer'}}}",
        "{'type':'object','required':['berth'],'additionalProperties':{'type':'integer'}}",
        "{'type':'object','minProperties':3}",
        "{'type':'object','minProperties':2,'propertyNames':{'pattern':'^[a-z]{3}$'}}",
        "{'type':'object','minProperties':2,'patternProperties':{'^p-[0-9]$':{'type':'boolean'}},"
            + "'additionalProperties':false}",
        "{'type':'object','maxProperties':1,'properties':{'a':{'type':'string'},"
            + "'b':{'type':'string'}},'required':['b']}",
        "{'allOf':[{'type':'string','minLength':6},{'pattern':'^[a-z]+$'}]}",
        "{'allOf':[{'type':'object','properties':{'a':{'type':'string'}},'required':['a']},"
            + "{'type':'object','properties':{'b':{'type':'integer'}},'required':['b']}]}",
        "{'anyOf':[{'type':'integer','minimum':7},{'type':'string'}]}",
        "{'const':{'berth':'B-12'}}",
        "{'type':'boolean'}",
        "{'type':'null'}",
        "true",
      })
  void aValueFitsItsSchema(String schema) {
    valid(schema.replace('\'', '"'), "3.1.0");
  }

  @Test
  void theBoundsOfOpenApi30AreKept() {
    valid("{\"type\":\"integer\",\"minimum\":3,\"exclusiveMinimum\":true}", "3.0.3");
    valid("{\"type\":\"number\",\"maximum\":0,\"exclusiveMaximum\":true}", "3.0.3");
    valid("{\"type\":\"string\",\"nullable\":true,\"pattern\":\"^[A-Z]$\"}", "3.0.3");
  }

  @Test
  void generatedBoundsAreKept() {
    Random random = new Random(18);
    for (int round = 0; round < 400; round++) {
      int low = random.nextInt(200) - 100;
      int high = low + 2 + random.nextInt(20);
      String kind = random.nextBoolean() ? "integer" : "number";
      String lower = random.nextBoolean() ? "minimum" : "exclusiveMinimum";
      String upper = random.nextBoolean() ? "maximum" : "exclusiveMaximum";
      valid(
          String.format("{\"type\":\"%s\",\"%s\":%d,\"%s\":%d}", kind, lower, low, upper, high),
          "3.1.0");
      int least = random.nextInt(12);
      String text =
          String.format(
              "{\"type\":\"string\",\"minLength\":%d,\"maxLength\":%d%s}",
              least,
              least + random.nextInt(6),
              random.nextBoolean() ? ",\"pattern\":\"^[a-z0-9]*$\"" : "");
      valid(text, "3.1.0");
    }
  }

  @Test
  void theSameSchemaGivesTheSameValue() {
    String schema = "{\"type\":\"string\",\"pattern\":\"^[A-Z]{3}-[0-9]{4}$\"}";
    assertEquals(valid(schema, "3.1.0"), valid(schema, "3.1.0"));
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "{'type':'string','pattern':'^(?=a)b$'}",
        "{'type':'integer','minimum':3,'maximum':2}",
        "{'type':'string','minLength':2000000000}",
        "{'type':'string','not':{'minLength':1},'minLength':1}",
        "{'type':'object','properties':{'day':{'type':'string','not':{'type':'string'}}}}",
      })
  void theSchemaThatNeedsAnExampleIsNamed(String schema) {
    String message =
        assertThrows(MalformedDescription.class, () -> valid(schema.replace('\'', '"'), "3.1.0"))
            .getMessage();
    assertTrue(message.contains("no valid value can be generated, because of $"), message);
    assertTrue(message.contains("berths.openapi.json:"), message);
    assertTrue(message.contains("add an example"), message);
  }
}
