package org.transitum.server.waves;

import java.io.InputStream;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.transitum.server.journal.JournalService;
import org.transitum.server.live.LiveFeed;
import org.transitum.server.waves.WaveMapper.FreezeRow;
import org.transitum.server.waves.WaveMapper.WaveRow;
import org.transitum.sources.waves.WindowsCsv;

/** Takes windows and freezes from a file. */
@Service
public class WindowImport {
  private final WaveMapper mapper;
  private final JournalService journal;
  private final LiveFeed live;

  WindowImport(WaveMapper mapper, JournalService journal, LiveFeed live) {
    this.mapper = mapper;
    this.journal = journal;
    this.live = live;
  }

  /** Takes a file of windows and freezes as a whole. */
  @Transactional
  public int read(String file, InputStream content) {
    WindowsCsv.Windows windows = WindowsCsv.read(file, content);
    Map<String, WaveRow> known =
        mapper.waves().stream().collect(Collectors.toMap(WaveRow::waveKey, row -> row));
    windows.windows().forEach(row -> save(row, known.get(row.wave()), file));
    windows.freezes().forEach(this::save);
    live.announce("waves", file);
    return windows.windows().size() + windows.freezes().size();
  }

  private void save(WindowsCsv.WindowRow row, @Nullable WaveRow before, String file) {
    mapper.save(
        new WaveRow(
            row.wave(),
            row.name(),
            row.start(),
            row.end(),
            row.maxDatabases(),
            row.maxBytes(),
            before == null ? 1 : before.version() + 1));
    journal.write(
        before == null ? "added wave" : "changed wave",
        "WAVE",
        row.wave(),
        "window",
        before == null ? null : before.startsAt() + " to " + before.endsAt(),
        row.start() + " to " + row.end(),
        "from " + file);
  }

  private void save(WindowsCsv.FreezeRow row) {
    mapper.dropFreeze(row.name());
    mapper.insertFreeze(new FreezeRow(0, row.name(), row.start(), row.end()));
    journal.write(
        "set freeze", "FREEZE", row.name(), "period", null, row.start() + " to " + row.end(), null);
  }
}
