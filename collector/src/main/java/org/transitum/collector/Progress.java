package org.transitum.collector;

import java.io.PrintStream;
import java.time.Clock;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;

/** Tells what is going on: a line for each event, and one that is kept current on a terminal. */
final class Progress {
  private static final DateTimeFormatter CLOCK = DateTimeFormatter.ofPattern("HH:mm:ss");
  private static final long QUIET_MILLIS = 60_000;

  private final PrintStream out;
  private final Clock clock;
  private final boolean terminal;
  private int width;
  private long toldMillis = Long.MIN_VALUE / 2;

  /**
   * @param terminal whether a line can be written over
   */
  Progress(PrintStream out, Clock clock, boolean terminal) {
    this.out = out;
    this.clock = clock;
    this.terminal = terminal;
  }

  /** Something that happened. */
  synchronized void tell(String words) {
    clear();
    out.println(time() + "  " + words);
    out.flush();
  }

  /** How things stand; at most once a minute where lines stay. */
  synchronized void stand(String words) {
    long now = clock.millis();
    if (terminal) {
      clear();
      String line = time() + "  " + words;
      out.print(line);
      width = line.length();
    } else if (now - toldMillis >= QUIET_MILLIS) {
      toldMillis = now;
      out.println(time() + "  " + words);
    }
    out.flush();
  }

  private void clear() {
    if (width > 0) {
      out.print("\r" + " ".repeat(width) + "\r");
      width = 0;
    }
  }

  private String time() {
    return CLOCK.format(clock.instant().atZone(ZoneId.systemDefault()));
  }
}
