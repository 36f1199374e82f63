// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.answer.Answers;
import dev.cachette.answer.ResponseAnswer;
import dev.cachette.internal.fields.Key;
import dev.cachette.internal.fields.Keys;
import dev.cachette.internal.fields.Shape;
import dev.cachette.internal.yaml.Node;
import java.util.List;

/** The keys for the content of an answer, which has one at most. */
final class ContentKeys {

  /** Reads the content under a key. */
  @FunctionalInterface
  interface Reading {

    /** Returns a response with the content. */
    ResponseAnswer of(ContentReader reader, Node value);
  }

  static final Keys<Void> PROBLEM =
      Keys.of(
          Key.of("title", "What kind of problem it is.", Shape.TEXT),
          Key.of("status", "The status; 500 by default.", Shape.INTEGER));

  static final Keys<Void> RECORDED =
      Keys.of(
          Key.of("cassette", "The cassette, relative to this file.", Shape.TEXT),
          Key.of("request", "METHOD URL of the recorded request.", Shape.TEXT));

  static final Keys<Void> STREAM_PARTS =
      Keys.of(
          Key.of("mediaType", "The media type; text/plain by default.", Shape.TEXT),
          Key.of("pieces", "The pieces.", Shape.list(Shape.SCALAR)));

  static final Keys<Void> EVENT =
      Keys.of(
          Key.of("name", "The type of the event.", Shape.SCALAR),
          Key.of("data", "Its data.", Shape.SCALAR),
          Key.of("id", "Its ID.", Shape.SCALAR));

  static final String STREAM = "stream";
  static final String EVENTS = "events";

  /** Contents that are known when the answer begins. */
  static final Keys<Reading> WHOLE =
      Keys.of(
          key("json", "Any value, sent as application/json.", Shape.ANY, ContentReader::json),
          key(
              "xml",
              "XML, sent as application/xml.",
              Shape.TEXT,
              (reader, value) -> Answers.xml(ContentReader.text(value))),
          key(
              "text",
              "Text, sent as text/plain.",
              Shape.SCALAR,
              (reader, value) -> Answers.text(ContentReader.text(value))),
          key(
              "html",
              "A page, sent as text/html.",
              Shape.TEXT,
              (reader, value) -> Answers.html(ContentReader.text(value))),
          key(
              "base64",
              "Bytes, in Base64.",
              Shape.TEXT,
              (reader, value) -> Answers.bytes(ContentReader.bytes(value))),
          key("form", "Fields, URL-encoded.", Shape.members(Shape.SCALAR), ContentReader::form),
          key("file", "A file relative to this one.", Shape.TEXT, ContentReader::file),
          key(
              "classpath",
              "A resource on the classpath, from its root.",
              Shape.TEXT,
              (reader, value) -> Answers.classpath(ContentReader.text(value))),
          key(
              "problem",
              "A problem (RFC 9457): title, status, and other members.",
              () -> {
                var schema = Shape.OBJECT.schema();
                schema.set("properties", PROBLEM.schemas());
                return schema;
              },
              ContentReader::problem),
          key(
              "redirect",
              "The location, with status 302.",
              Shape.TEXT,
              (reader, value) -> Answers.redirect(ContentReader.text(value))),
          key(
              "recorded",
              "A response from a cassette.",
              Shape.mapping(RECORDED, "cassette", "request"),
              ContentReader::recorded));

  /** Contents of unknown length. */
  static final Keys<Void> STREAMED =
      Keys.of(
          Key.of(
              STREAM,
              "A body of unknown length, piece by piece.",
              Shape.mapping(STREAM_PARTS, "pieces")),
          Key.of(
              EVENTS,
              "Server-Sent Events; a plain string is the data of one.",
              Shape.list(Shape.either(Shape.TEXT, Shape.mapping(EVENT)))));

  /** All of them. */
  static final Keys<Void> ALL = Keys.all(List.of(WHOLE, STREAMED));

  private ContentKeys() {}

  private static Key<Reading> key(String name, String help, Shape shape, Reading reading) {
    return new Key<>(name, help, shape, reading);
  }
}
