package org.transitum.server.journal;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.transitum.server.journal.JournalMapper.EntryColumns;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.team.CurrentPerson;

/** Writes the journal, always in the transaction of the change it tells of. */
@Service
public class JournalService {
  private static final int LONGEST = 2_000;
  private static final int AT_ONCE = 4_000;

  private final JournalMapper mapper;
  private final CurrentPerson current;
  private final ProgrammeClock clock;

  JournalService(JournalMapper mapper, CurrentPerson current, ProgrammeClock clock) {
    this.mapper = mapper;
    this.current = current;
    this.clock = clock;
  }

  /** One thing that was done. Ids grow with time of writing. */
  public record Entry(
      long id,
      Instant at,
      String person,
      String action,
      String objectKind,
      String objectKey,
      @Nullable String attribute,
      @Nullable String fromValue,
      @Nullable String toValue,
      @Nullable String note) {}

  /** How much was done on a day, UTC. */
  public record DayCount(LocalDate onDay, int entries) {}

  @Transactional(propagation = Propagation.MANDATORY)
  public void write(
      String action,
      String objectKind,
      String objectKey,
      @Nullable String attribute,
      @Nullable String from,
      @Nullable String to,
      @Nullable String note) {
    mapper.insert(entry(action, objectKind, objectKey, attribute, from, to, note));
  }

  /** Writes many entries, in their order. */
  @Transactional(propagation = Propagation.MANDATORY)
  public void writeAll(List<Entry> entries) {
    for (int at = 0; at < entries.size(); at += AT_ONCE) {
      mapper.insertAll(
          EntryColumns.of(entries.subList(at, Math.min(entries.size(), at + AT_ONCE))));
    }
  }

  /** An entry of now, by whoever makes the call; not written yet. */
  public Entry entry(
      String action,
      String objectKind,
      String objectKey,
      @Nullable String attribute,
      @Nullable String from,
      @Nullable String to,
      @Nullable String note) {
    return new Entry(
        0,
        clock.instant(),
        current.login(),
        action,
        objectKind,
        objectKey,
        attribute,
        cut(from),
        cut(to),
        cut(note));
  }

  /** Newest first. */
  public List<Entry> page(
      @Nullable String kind, @Nullable String key, @Nullable Long before, int limit) {
    return mapper.page(kind, key, before, Math.max(1, Math.min(500, limit)));
  }

  /** Every change of a database's place, stage, wave or condition up to a time, oldest first. */
  public List<Entry> statesUntil(Instant at) {
    return mapper.states(at);
  }

  public List<DayCount> days() {
    return mapper.days();
  }

  private static @Nullable String cut(@Nullable String text) {
    return text == null || text.length() <= LONGEST ? text : text.substring(0, LONGEST);
  }
}
