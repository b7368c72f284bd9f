package org.transitum.server.demo;

import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.transitum.core.crossings.Move;
import org.transitum.demo.DemoEstate;
import org.transitum.server.crossings.CrossingService;
import org.transitum.server.crossings.CrossingService.CrossingView;
import org.transitum.server.crossings.PlaceService;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.team.TeamService;
import org.transitum.server.waves.PlanService;
import org.transitum.server.waves.WaveService;
import org.transitum.sources.files.CsvTable;
import org.transitum.sources.files.CsvTable.Row;

/** Tells what the demo's people did in the last weeks, each thing by its person and at its time. */
@Component
@ConditionalOnProperty("transitum.demo")
class DemoHistory {
  private final ProgrammeClock clock;
  private final TeamService team;
  private final WaveService waves;
  private final PlanService plans;
  private final PlaceService places;
  private final CrossingService crossings;

  DemoHistory(
      ProgrammeClock clock,
      TeamService team,
      WaveService waves,
      PlanService plans,
      PlaceService places,
      CrossingService crossings) {
    this.clock = clock;
    this.team = team;
    this.waves = waves;
    this.plans = plans;
    this.places = places;
    this.crossings = crossings;
  }

  interface Work {
    void run() throws java.io.IOException;
  }

  /** Runs work as a person at a time. */
  void as(String login, Instant at, Work work) {
    String role =
        team.people().stream()
            .filter(person -> person.login().equals(login))
            .findFirst()
            .orElseThrow()
            .role()
            .name();
    SecurityContextHolder.getContext()
        .setAuthentication(
            UsernamePasswordAuthenticationToken.authenticated(
                login, null, List.of(new SimpleGrantedAuthority("ROLE_" + role))));
    try {
      clock.at(
          at,
          () -> {
            try {
              work.run();
            } catch (java.io.IOException e) {
              throw new java.io.UncheckedIOException(e);
            }
          });
    } finally {
      SecurityContextHolder.clearContext();
    }
  }

  void tell(DemoEstate estate) {
    CsvTable table = CsvTable.read("history.csv", estate.open("history.csv"));
    for (Row row : table.rows()) {
      Instant at = OffsetDateTime.parse(row.text("at")).toInstant();
      as(row.text("person"), at, () -> act(row));
    }
  }

  private void act(Row row) {
    String detail = row.text("detail");
    if (row.text("action").equals("plan")) {
      plans.accept(plans.plan().id());
      return;
    }
    if (row.text("action").equals("place")) {
      Arrays.stream(detail.split(" ")).forEach(database -> place(database, row.text("object")));
      return;
    }
    for (String database : databases(row.text("object"))) {
      act(row.text("action"), database, detail, row.text("person"));
    }
  }

  private void place(String database, String wave) {
    String group = waves.groupOf(database);
    if (group == null) {
      throw new IllegalStateException(database + " is in no group");
    }
    waves.place(group, waves.placements().get(database), wave);
  }

  /** A wave stands for every database placed in it. */
  private List<String> databases(String object) {
    return object.contains("/")
        ? List.of(object)
        : waves.placements().entrySet().stream()
            .filter(entry -> entry.getValue().equals(object))
            .map(Map.Entry::getKey)
            .sorted()
            .collect(Collectors.toList());
  }

  private void act(String action, String database, String detail, String person) {
    switch (action) {
      case "prepare" -> crossings.prepare(database);
      case "assign" -> crossings.setUp(database, detail);
      case "settle" -> crossings.settle(database);
      case "copy" -> move(database, Move.COPY, null);
      case "follow" -> {
        report(database, 1.0, null);
        move(database, Move.FOLLOW, null);
      }
      case "switch" -> {
        report(database, null, 0L);
        move(database, Move.SWITCH, null);
      }
      case "prove" -> move(database, Move.PROVE, null);
      case "finish" -> move(database, Move.FINISH, null);
      case "hold" -> move(database, Move.HOLD, detail);
      case "stall" -> move(database, Move.STALL, detail);
      case "progress" -> report(database, Double.parseDouble(detail) / 100, null);
      case "lag" -> report(database, null, Long.valueOf(detail));
      default -> throw new IllegalStateException(person + " cannot " + action);
    }
  }

  private void move(String database, Move move, @org.jspecify.annotations.Nullable String why) {
    CrossingView crossing = crossing(database);
    crossings.move(crossing.key(), move, why, crossing.version());
  }

  private void report(
      String database,
      @org.jspecify.annotations.Nullable Double progress,
      @org.jspecify.annotations.Nullable Long lag) {
    CrossingView crossing = crossing(database);
    crossings.report(crossing.key(), progress, lag, crossing.version());
  }

  private CrossingView crossing(String database) {
    String key = places.place(database).crossing();
    if (key == null) {
      throw new IllegalStateException(database + " has no crossing");
    }
    return crossings.crossing(key);
  }
}
