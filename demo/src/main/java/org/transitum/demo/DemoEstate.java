package org.transitum.demo;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The files of the demo estate. Dates in them are written relative to the day the demo starts, as
 * {@code {+5d 20:00}}, so that there is always a cutover tonight.
 */
public final class DemoEstate {
  public static final ZoneId ZONE = ZoneId.of("Europe/London");
  public static final String NAME = "Fennmark Water: leave Headworks by 30 June";

  private static final Pattern RELATIVE = Pattern.compile("\\{([+-]\\d{1,3})d (\\d\\d:\\d\\d)}");

  private final LocalDate today;

  /**
   * @param today the day, in {@link #ZONE}, on which the demo starts
   */
  public DemoEstate(LocalDate today) {
    this.today = today;
  }

  /** A file of the folder {@code demo/estate} with its relative times written out. */
  public InputStream open(String name) {
    return new ByteArrayInputStream(expand(text(name)).getBytes(StandardCharsets.UTF_8));
  }

  /**
   * Counters of every database that has a rhythm, in the format of docs/formats/counters.md.
   *
   * @param now the time of the last sample
   * @param seed of the noise; the same seed gives the same bytes
   */
  public InputStream counters(ZonedDateTime now, long seed) {
    return new ReadAhead(new CounterStream(Rhythm.readAll(text("rhythms.csv")), now, seed));
  }

  String expand(String text) {
    Matcher matcher = RELATIVE.matcher(text);
    return matcher.replaceAll(
        match ->
            ZonedDateTime.of(
                    today.plusDays(Integer.parseInt(match.group(1))),
                    LocalTime.parse(match.group(2)),
                    ZONE)
                .format(DateTimeFormatter.ISO_OFFSET_DATE_TIME));
  }

  private static String text(String name) {
    try (InputStream in = DemoEstate.class.getResourceAsStream("/demo/" + name)) {
      if (in == null) {
        throw new IllegalArgumentException("the demo estate has no file " + name);
      }
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
