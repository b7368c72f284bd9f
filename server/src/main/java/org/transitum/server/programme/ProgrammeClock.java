package org.transitum.server.programme;

import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import org.springframework.stereotype.Component;

/**
 * The server's clock. While the demo's history is told, the telling thread sees the time at which
 * each of its events happened; everybody else sees the real time.
 */
@Component
public class ProgrammeClock extends Clock {
  private static final ThreadLocal<Instant> TOLD = new ThreadLocal<>();

  @Override
  public Instant instant() {
    Instant told = TOLD.get();
    return told == null ? Instant.now().truncatedTo(java.time.temporal.ChronoUnit.MILLIS) : told;
  }

  /** Runs work at another time on this thread only. */
  public void at(Instant time, Runnable work) {
    TOLD.set(time);
    try {
      work.run();
    } finally {
      TOLD.remove();
    }
  }

  @Override
  public ZoneId getZone() {
    return ZoneOffset.UTC;
  }

  @Override
  public Clock withZone(ZoneId zone) {
    throw new UnsupportedOperationException("times are UTC inside");
  }
}
