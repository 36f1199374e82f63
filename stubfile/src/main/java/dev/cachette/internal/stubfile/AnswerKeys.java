// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.stubfile;

import dev.cachette.answer.ResponseAnswer;
import dev.cachette.internal.fields.Fields;
import dev.cachette.internal.fields.Key;
import dev.cachette.internal.fields.Keys;
import dev.cachette.internal.fields.Shape;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.UnaryOperator;

/** The keys of an answer. */
final class AnswerKeys {

  /** Reads what a key adds to a response. */
  @FunctionalInterface
  interface Reading {

    /** Returns the response with it; the same one if the key is absent. */
    ResponseAnswer of(AnswerReader reader, ResponseAnswer response, Fields fields);
  }

  static final String STATUS = "status";
  static final String HEADERS = "headers";
  static final String FAULT = "fault";
  static final String BYTES = "bytes";
  static final String REAL_SERVICE = "realService";
  static final String MAY_FAIL = "mayFail";
  static final String REPEATED = "repeated";

  static final Map<String, UnaryOperator<ResponseAnswer>> ENCODINGS =
      new TreeMap<>(
          Map.of(
              "gzip", ResponseAnswer::gzip,
              "deflate", ResponseAnswer::deflate,
              "negotiated", ResponseAnswer::compressed));

  private static final Shape DURATIONS = Shape.list(Shape.DURATION);

  static final Keys<Void> COOKIE =
      Keys.of(
          Key.of("name", "The name of the cookie.", Shape.TEXT),
          Key.of("value", "Its value.", Shape.SCALAR),
          Key.of("attributes", "Its attributes: Path=/, HttpOnly.", Shape.list(Shape.TEXT)));

  /** The rest of a response besides its status and content, in the order in which it is added. */
  static final Keys<Reading> FURTHER =
      Keys.of(
          new Key<>(
              HEADERS,
              "Headers; a sequence makes several of the same name.",
              Shape.members(Shape.list(Shape.SCALAR)),
              AnswerReader::headers),
          new Key<>(
              "cookies",
              "Cookies to be set.",
              Shape.list(Shape.mapping(COOKIE, "name")),
              AnswerReader::cookies),
          new Key<>(
              "trailers", "Trailer fields.", Shape.members(Shape.SCALAR), AnswerReader::trailers),
          new Key<>(
              "etag",
              "The entity tag, with or without its quotes.",
              Shape.TEXT,
              (reader, response, fields) ->
                  fields.text("etag").map(response::etag).orElse(response)),
          new Key<>(
              "charset",
              "The charset of the text.",
              Shape.TEXT,
              (reader, response, fields) ->
                  fields
                      .text("charset")
                      .map(name -> response.charset(AnswerReader.charset(name)))
                      .orElse(response)),
          new Key<>(
              "replacing",
              "New values at places of a JSON body, by JSONPath or JSON Pointer.",
              Shape.members(Shape.ANY),
              AnswerReader::replacing),
          new Key<>(
              "encoding",
              "The content encoding; negotiated depends on the request.",
              Shape.choice(ENCODINGS.keySet()),
              (reader, response, fields) ->
                  fields
                      .text("encoding")
                      .map(name -> AnswerReader.encoded(response, name))
                      .orElse(response)),
          new Key<>(
              "ranges",
              "Whether a range request gets that range.",
              Shape.FLAG,
              (reader, response, fields) -> fields.isSet("ranges") ? response.ranges() : response),
          new Key<>(
              "template",
              "Whether ${...} is filled from the request; true by default for text in this file,"
                  + " false for other files.",
              Shape.FLAG,
              AnswerReader::template),
          new Key<>(
              "streamed",
              "Whether the file is streamed from disk.",
              Shape.FLAG,
              (reader, response, fields) ->
                  fields.isSet("streamed") ? response.streamed() : response));

  /** When an answer is sent, and how fast. */
  static final Keys<Void> TIMING =
      Keys.of(
          Key.of(
              "delay",
              "The delay before the answer; two durations for a random one between them.",
              DURATIONS),
          Key.of("pauseBeforeBody", "The pause between headers and body.", DURATIONS),
          Key.of("pieces", "The number of pieces of the body.", Shape.POSITIVE),
          Key.of("pause", "The pause between two pieces.", DURATIONS),
          Key.of("rate", "Bytes per second.", Shape.POSITIVE));

  private static final Keys<Void> STATUS_LINE =
      Keys.of(Key.of(STATUS, "The status; 200 by default.", Shape.STATUS));

  private static final Keys<Void> OTHERS =
      Keys.of(
          Key.of(
              FAULT,
              "A fault, instead of an answer or within the answer next to it.",
              Shape.choice(FaultNames.all())),
          Key.of(
              BYTES,
              "For truncated, the number of bytes sent; for headersTooLarge, their approximate"
                  + " number.",
              () -> Shape.INTEGER.schema().put("minimum", 0)),
          Key.of(
              REAL_SERVICE,
              "The answer of the real service.",
              () -> Shape.ANY.schema().put("const", true)),
          Key.of(
              MAY_FAIL,
              "Whether the real service may be unreachable, which fails the test otherwise.",
              Shape.FLAG),
          Key.of(
              REPEATED,
              "How many times in turn this answer is given; 1 by default.",
              Shape.POSITIVE));

  /** All of them. */
  static final Keys<Void> ALL =
      Keys.all(List.of(STATUS_LINE, ContentKeys.ALL, FURTHER, TIMING, OTHERS));

  private AnswerKeys() {}
}
