package org.transitum.server.sizing;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.transitum.core.sizing.Catalogue;
import org.transitum.server.journal.JournalService;
import org.transitum.server.live.LiveFeed;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.sources.sizing.CatalogueJson;

/** The destination's catalogue, kept as the file that was read. */
@Service
public class CatalogueService {
  private static final int MOST_BYTES = 4 << 20;

  private final CatalogueMapper mapper;
  private final JournalService journal;
  private final LiveFeed live;
  private final ProgrammeClock clock;
  private volatile @Nullable Catalogue known;

  CatalogueService(
      CatalogueMapper mapper, JournalService journal, LiveFeed live, ProgrammeClock clock) {
    this.mapper = mapper;
    this.journal = journal;
    this.live = live;
    this.clock = clock;
  }

  public Optional<Catalogue> current() {
    Catalogue now = known;
    if (now == null) {
      now = mapper.payload().map(text -> parse("catalogue", text)).orElse(null);
      known = now;
    }
    return Optional.ofNullable(now);
  }

  @Transactional
  public Catalogue read(String file, InputStream content) throws IOException {
    String text = new String(content.readNBytes(MOST_BYTES + 1), StandardCharsets.UTF_8);
    Catalogue catalogue = parse(file, text);
    mapper.save(catalogue.name(), clock.instant(), text);
    journal.write(
        "read catalogue",
        "CATALOGUE",
        catalogue.name(),
        null,
        null,
        null,
        "%d tiers from %s".formatted(catalogue.tiers().size(), file));
    known = null;
    live.announce("sizing", "catalogue");
    return catalogue;
  }

  private static Catalogue parse(String file, String text) {
    return CatalogueJson.read(
        file, new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8)));
  }
}
