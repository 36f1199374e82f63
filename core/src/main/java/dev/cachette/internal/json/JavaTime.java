// SPDX-License-Identifier: Apache-2.0
package dev.cachette.internal.json;

import static java.time.format.DateTimeFormatter.ISO_LOCAL_DATE_TIME;
import static java.time.format.DateTimeFormatter.ISO_LOCAL_TIME;
import static java.time.format.DateTimeFormatter.ISO_OFFSET_DATE_TIME;
import static java.time.format.DateTimeFormatter.ISO_OFFSET_TIME;

import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.deser.std.FromStringDeserializer;
import com.fasterxml.jackson.databind.module.SimpleModule;
import com.fasterxml.jackson.databind.ser.std.ToStringSerializerBase;
import java.io.IOException;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.MonthDay;
import java.time.OffsetDateTime;
import java.time.OffsetTime;
import java.time.Period;
import java.time.Year;
import java.time.YearMonth;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.util.function.Function;

/**
 * Writes and reads {@code java.time} as ISO 8601 strings, if Jackson's own module for it is not on
 * the classpath.
 */
final class JavaTime extends SimpleModule {

  private static final long serialVersionUID = 1;

  /** The module of Jackson that does the same. */
  private static final String OF_JACKSON = "com.fasterxml.jackson.datatype.jsr310.JavaTimeModule";

  JavaTime() {
    super("cachette-java-time");
    add(Instant.class, Instant::parse);
    add(LocalDate.class, LocalDate::parse);
    add(LocalDateTime.class, LocalDateTime::parse, ISO_LOCAL_DATE_TIME::format);
    add(LocalTime.class, LocalTime::parse, ISO_LOCAL_TIME::format);
    add(OffsetDateTime.class, OffsetDateTime::parse, ISO_OFFSET_DATE_TIME::format);
    add(OffsetTime.class, OffsetTime::parse, ISO_OFFSET_TIME::format);
    // ISO 8601 has offsets, but no zones.
    add(ZonedDateTime.class, ZonedDateTime::parse, ISO_OFFSET_DATE_TIME::format);
    add(Duration.class, Duration::parse);
    add(Period.class, Period::parse);
    add(Year.class, Year::parse);
    add(YearMonth.class, YearMonth::parse);
    add(MonthDay.class, MonthDay::parse);
    add(ZoneId.class, ZoneId::of);
    add(ZoneOffset.class, ZoneOffset::of);
  }

  /** Returns true if this module is needed. */
  static boolean isNeeded(ClassLoader loader) {
    try {
      Class.forName(OF_JACKSON, false, loader);
      return false;
    } catch (ClassNotFoundException none) {
      return true;
    }
  }

  private <T> void add(Class<T> type, Function<String, T> parser) {
    add(type, parser, Object::toString);
  }

  private <T> void add(Class<T> type, Function<String, T> parser, Function<T, String> formatter) {
    addSerializer(type, new Formatting<>(type, formatter));
    addDeserializer(type, new Parsing<>(type, parser));
  }

  private static final class Formatting<T> extends ToStringSerializerBase {

    private static final long serialVersionUID = 1;

    private final transient Function<T, String> formatter;
    private final Class<T> type;

    Formatting(Class<T> type, Function<T, String> formatter) {
      super(type);
      this.type = type;
      this.formatter = formatter;
    }

    @Override
    public String valueToString(Object value) {
      return formatter.apply(type.cast(value));
    }
  }

  private static final class Parsing<T> extends FromStringDeserializer<T> {

    private static final long serialVersionUID = 1;

    private final transient Function<String, T> parser;

    Parsing(Class<T> type, Function<String, T> parser) {
      super(type);
      this.parser = parser;
    }

    @Override
    protected T _deserialize(String text, DeserializationContext context) throws IOException {
      try {
        return parser.apply(text);
      } catch (DateTimeException malformed) {
        throw context.weirdStringException(text, handledType(), malformed.getMessage());
      }
    }
  }
}
