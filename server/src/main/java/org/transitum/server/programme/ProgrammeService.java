package org.transitum.server.programme;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.ZoneId;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.transitum.core.InvalidValue;
import org.transitum.core.sizing.SizingSettings;
import org.transitum.server.journal.JournalService;
import org.transitum.server.live.LiveFeed;
import org.transitum.server.problems.Conflict;
import org.transitum.server.programme.ProgrammeMapper.ProgrammeRow;

/** The programme's name, zone and settings. */
@Service
public class ProgrammeService {
  private static final long LINK_BYTES_PER_SECOND = 1_000_000_000 / 8;
  private static final int STALE_AFTER_DAYS = 30;
  private static final int MOST_STALE_DAYS = 1_000;

  private final ProgrammeMapper mapper;
  private final JournalService journal;
  private final LiveFeed live;
  private final ProgrammeClock clock;
  private final boolean demo;

  ProgrammeService(
      ProgrammeMapper mapper,
      JournalService journal,
      LiveFeed live,
      ProgrammeClock clock,
      @Value("${transitum.demo}") boolean demo) {
    this.mapper = mapper;
    this.journal = journal;
    this.live = live;
    this.clock = clock;
    this.demo = demo;
  }

  /**
   * @param version of the settings, for If-Match
   */
  public record Programme(
      String name,
      String zone,
      boolean demo,
      Instant now,
      SizingSettings sizing,
      long linkBytesPerSecond,
      int staleAfterDays,
      int version) {}

  public Programme current() {
    ProgrammeRow row = mapper.find().orElseGet(this::create);
    return new Programme(
        row.name(),
        row.zone(),
        row.demo(),
        clock.instant(),
        new SizingSettings(
            row.percentile(),
            row.headroomPercent(),
            row.horizonMonths(),
            row.lookBackDays(),
            row.growthPercentPerYear()),
        row.linkBytesPerSecond(),
        row.staleAfterDays(),
        row.version());
  }

  private ProgrammeRow create() {
    SizingSettings sizing = SizingSettings.DEFAULT;
    ProgrammeRow row =
        new ProgrammeRow(
            "New programme",
            "UTC",
            demo,
            sizing.percentile(),
            sizing.headroomPercent(),
            sizing.horizonMonths(),
            sizing.lookBackDays(),
            sizing.growthPercentPerYear(),
            LINK_BYTES_PER_SECOND,
            STALE_AFTER_DAYS,
            1);
    mapper.insert(row);
    return row;
  }

  @Transactional
  public void rename(String name, String zone) {
    try {
      ZoneId.of(zone);
    } catch (DateTimeException e) {
      throw new InvalidValue(
          "\"%s\" is no time zone; write one such as Europe/London.".formatted(zone));
    }
    Programme before = current();
    mapper.rename(name.strip(), zone);
    journal.write("renamed", "PROGRAMME", "programme", "name", before.name(), name, null);
    live.announce("programme", "programme");
  }

  /** Sets the age from which a fact that no source has told again is shown as stale. */
  @Transactional
  public void staleAfter(int days, long version) {
    if (days < 1 || days > MOST_STALE_DAYS) {
      throw new InvalidValue("%d days is out of bounds; choose 1 to 1,000.".formatted(days));
    }
    Programme before = current();
    if (mapper.staleAfter(days, version) == 0) {
      throw new Conflict(
          "The programme's settings were changed by somebody else meanwhile.",
          days + " days",
          before.staleAfterDays() + " days",
          before.version());
    }
    journal.write(
        "set",
        "PROGRAMME",
        "programme",
        "stale after",
        before.staleAfterDays() + " days",
        days + " days",
        null);
    live.announce("programme", "stale after");
    live.announce("inventory", "stale after");
  }

  @Transactional
  public void keepSizing(SizingSettings settings, long version) {
    Programme before = current();
    if (mapper.size(settings, version) == 0) {
      throw new Conflict(
          "The sizing settings were changed by somebody else meanwhile.",
          words(settings),
          words(before.sizing()),
          before.version());
    }
    journal.write(
        "kept settings",
        "PROGRAMME",
        "programme",
        "sizing",
        words(before.sizing()),
        words(settings),
        null);
    live.announce("sizing", "settings");
  }

  private static String words(SizingSettings s) {
    return "P%s, headroom %d%%, horizon %d months, look-back %d days"
        .formatted(s.percentile(), s.headroomPercent(), s.horizonMonths(), s.lookBackDays());
  }
}
