package org.transitum.server.waves;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.transitum.server.journal.JournalService;
import org.transitum.server.waves.WaveMapper.PlacementRow;

/** Which wave each database stands in, written with its journal. */
@Component
class Placements {
  private final WaveMapper mapper;
  private final JournalService journal;

  Placements(WaveMapper mapper, JournalService journal) {
    this.mapper = mapper;
    this.journal = journal;
  }

  /** Wave of each placed database. */
  Map<String, String> waves() {
    return mapper.placements().stream()
        .collect(Collectors.toMap(PlacementRow::databaseKey, PlacementRow::waveKey));
  }

  /**
   * @param wave null to take the databases out of their waves
   * @param note how it came about, for the journal
   */
  void write(List<String> databases, @Nullable String wave, String note) {
    Map<String, PlacementRow> placed =
        mapper.placements().stream()
            .collect(Collectors.toMap(PlacementRow::databaseKey, row -> row));
    for (String database : databases) {
      PlacementRow before = placed.get(database);
      String from = before == null ? null : before.waveKey();
      if (Objects.equals(from, wave)) {
        continue;
      }
      if (wave == null) {
        mapper.unplace(database);
      } else {
        mapper.place(new PlacementRow(database, wave, before != null && before.locked()));
      }
      journal.write("placed", "DATABASE", database, "wave", from, wave, note);
    }
  }
}
