package org.transitum.server.demo;

import java.io.IOException;
import java.io.InputStream;
import java.time.LocalDate;
import java.time.ZonedDateTime;
import java.util.List;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.core.env.Environment;
import org.springframework.stereotype.Component;
import org.transitum.demo.DemoEstate;
import org.transitum.server.counters.CounterService;
import org.transitum.server.dependencies.TieService;
import org.transitum.server.inventory.FileReadService;
import org.transitum.server.inventory.ReadingService;
import org.transitum.server.inventory.ReadingService.OpenReading;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.programme.ProgrammeService;
import org.transitum.server.sizing.CatalogueService;
import org.transitum.server.team.TeamService;
import org.transitum.server.waves.WindowImport;
import org.transitum.sources.inventory.InventoryFile.Faulty;
import org.transitum.sources.team.PeopleCsv;
import org.transitum.sources.team.PeopleCsv.PersonRow;

/** Loads the demo estate into an empty server, through the same services as anyone's files. */
@Component
@ConditionalOnProperty("transitum.demo")
class DemoLoader implements ApplicationRunner {
  private static final Logger LOG = LoggerFactory.getLogger(DemoLoader.class);
  private static final long SEED = 20_261_124;
  private static final int STORY_DAYS = 26;
  private static final int SPRING_DAYS = 40;

  private final TeamService team;
  private final ProgrammeService programme;
  private final ProgrammeClock clock;
  private final FileReadService files;
  private final ReadingService readings;
  private final TieService ties;
  private final WindowImport windows;
  private final CatalogueService catalogues;
  private final CounterService counters;
  private final DemoHistory history;
  private final DemoServers servers;
  private final Environment environment;

  DemoLoader(
      TeamService team,
      ProgrammeService programme,
      ProgrammeClock clock,
      FileReadService files,
      ReadingService readings,
      TieService ties,
      WindowImport windows,
      CatalogueService catalogues,
      CounterService counters,
      DemoHistory history,
      DemoServers servers,
      Environment environment) {
    this.team = team;
    this.programme = programme;
    this.clock = clock;
    this.files = files;
    this.readings = readings;
    this.ties = ties;
    this.windows = windows;
    this.catalogues = catalogues;
    this.counters = counters;
    this.history = history;
    this.servers = servers;
    this.environment = environment;
  }

  @Override
  public void run(ApplicationArguments arguments) throws IOException {
    long began = System.nanoTime();
    List<PersonRow> people = people();
    if (team.isEmpty()) {
      load(people);
      LOG.info("demo loaded in {} ms", (System.nanoTime() - began) / 1_000_000);
    }
    String port = environment.getProperty("local.server.port", "8321");
    System.out.println();
    System.out.println("Transitum with the Fennmark Water demo: http://127.0.0.1:" + port);
    System.out.println("Everyone can read these passwords; keep real data out of the demo.");
    people.forEach(
        person ->
            System.out.printf(
                "  %-6s %-14s %s, %s%n",
                person.login(), person.password(), person.name(), lower(person)));
  }

  private static String lower(PersonRow person) {
    return person.role().name().toLowerCase(java.util.Locale.ROOT);
  }

  private List<PersonRow> people() {
    return PeopleCsv.read(
        "people.csv",
        new DemoEstate(LocalDate.ofInstant(clock.instant(), DemoEstate.ZONE)).open("people.csv"));
  }

  private void accept(String file, InputStream content) {
    OpenReading reading = files.read(file, content, Faulty.REFUSED).reading();
    if (reading == null) {
      throw new IllegalStateException(file + " of the demo names columns that are not known");
    }
    readings.accept(reading.id(), null, Map.of());
  }

  private void load(List<PersonRow> people) throws IOException {
    ZonedDateTime now = clock.instant().atZone(DemoEstate.ZONE);
    DemoEstate estate = new DemoEstate(now.toLocalDate());
    people.forEach(
        person -> team.add(person.login(), person.name(), person.role(), person.password()));
    programme.rename(DemoEstate.NAME, DemoEstate.ZONE.getId());
    history.as(
        "ines",
        now.minusDays(SPRING_DAYS).toInstant(),
        () -> accept("spring-list.csv", estate.open("spring-list.csv")));
    history.as(
        "ines",
        now.minusDays(STORY_DAYS).toInstant(),
        () -> {
          for (String file : List.of("applications.csv", "servers.csv", "databases.csv")) {
            accept(file, estate.open(file));
          }
          ties.read("ties.csv", estate.open("ties.csv"));
          windows.read("windows.csv", estate.open("windows.csv"));
        });
    history.as(
        "ines",
        now.minusDays(STORY_DAYS - 1).toInstant(),
        () -> catalogues.read("catalogue.json", estate.open("catalogue.json")));
    history.as("ines", now.minusDays(1).toInstant(), servers::list);
    history.tell(estate);
    try (InputStream samples = estate.counters(now, SEED)) {
      history.as(
          "omar",
          now.toInstant(),
          () -> counters.importNow("counters of 30 days", samples, words -> {}));
    }
  }
}
