package org.transitum.server.inventory;

import static org.transitum.core.team.Role.ENGINEER;
import static org.transitum.core.team.Role.LEAD;
import static org.transitum.core.team.Role.OBSERVER;
import static org.transitum.core.team.Role.OWNER;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.server.inventory.InventoryService.DatabaseRow;
import org.transitum.server.inventory.InventoryService.ObjectFacts;
import org.transitum.server.inventory.ReadingService.OpenReading;
import org.transitum.server.inventory.ReadingService.ReadingHead;
import org.transitum.server.inventory.SourceServers.Server;
import org.transitum.server.jobs.JobService;
import org.transitum.server.jobs.JobService.Job;
import org.transitum.server.jobs.JobService.Outcome;
import org.transitum.server.problems.Versions;
import org.transitum.server.team.AllowedTo;
import org.transitum.sources.inventory.ServerAddress.TlsMode;

@RestController
@RequestMapping("/api/v1/inventory")
class InventoryController {
  private final InventoryService inventory;
  private final ReadingService readings;
  private final SourceServers servers;
  private final JobService jobs;

  InventoryController(
      InventoryService inventory, ReadingService readings, SourceServers servers, JobService jobs) {
    this.inventory = inventory;
    this.readings = readings;
    this.servers = servers;
    this.jobs = jobs;
  }

  record Statement(
      @NotNull ObjectKind kind,
      @NotBlank String key,
      @NotBlank String attribute,
      @NotNull String value,
      boolean pinned,
      @Nullable @Size(max = 2000) String reason) {}

  /**
   * @param changes ids of the changes to take; absent for all
   */
  record Acceptance(@Nullable Set<String> changes) {}

  record Accepted(int changes) {}

  record ServerEntry(
      @NotBlank @Size(max = 200) String instance,
      @NotBlank @Size(max = 300) String host,
      @Min(1) @Max(65535) int port,
      @NotBlank @Size(max = 200) String database,
      @NotBlank @Size(max = 200) String user,
      @Nullable @Size(max = 500) String password,
      @NotNull TlsMode tls) {}

  @GetMapping("/databases")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  List<DatabaseRow> databases() {
    return inventory.databases();
  }

  @GetMapping("/object")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  ObjectFacts object(@RequestParam ObjectKind kind, @RequestParam String key) {
    return inventory.facts(kind, key);
  }

  @PutMapping("/object/fact")
  @AllowedTo({LEAD, ENGINEER})
  ObjectFacts state(
      @RequestHeader("If-Match") String ifMatch, @Valid @RequestBody Statement statement) {
    inventory.state(
        statement.kind(),
        statement.key(),
        statement.attribute(),
        statement.value(),
        statement.pinned(),
        statement.reason(),
        Versions.of(ifMatch));
    return inventory.facts(statement.kind(), statement.key());
  }

  @GetMapping("/readings")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  List<ReadingHead> openReadings() {
    return readings.openReadings();
  }

  /** The body is the file itself. */
  @PostMapping(path = "/readings")
  @AllowedTo({LEAD, ENGINEER})
  OpenReading readFile(@RequestParam String name, HttpServletRequest request) throws IOException {
    return readings.readFile(name, request.getInputStream());
  }

  @GetMapping("/readings/{id}")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  OpenReading reading(@PathVariable long id) {
    return readings.reading(id);
  }

  @PostMapping("/readings/{id}/accept")
  @AllowedTo({LEAD, ENGINEER})
  Accepted accept(@PathVariable long id, @RequestBody Acceptance acceptance) {
    return new Accepted(readings.accept(id, acceptance.changes()));
  }

  @DeleteMapping("/readings/{id}")
  @AllowedTo({LEAD, ENGINEER})
  void discard(@PathVariable long id) {
    readings.discard(id);
  }

  @GetMapping("/servers")
  @AllowedTo({LEAD, ENGINEER})
  List<Server> servers() {
    return servers.all();
  }

  @PutMapping("/servers")
  @AllowedTo(LEAD)
  void save(@Valid @RequestBody ServerEntry entry) {
    servers.save(
        entry.instance(),
        entry.host(),
        entry.port(),
        entry.database(),
        entry.user(),
        entry.password(),
        entry.tls());
  }

  @PostMapping("/servers/{instance}/read")
  @AllowedTo({LEAD, ENGINEER})
  Job read(@PathVariable String instance) {
    return jobs.start(
        "read server",
        "Reading " + instance,
        progress -> {
          progress.tell("connecting to " + instance);
          OpenReading reading = servers.read(instance);
          String message =
              "%d new, %d changed, %d gone%s"
                  .formatted(
                      reading.added(),
                      reading.changed(),
                      reading.gone(),
                      reading.unread().isEmpty()
                          ? ""
                          : "; %d parts not readable".formatted(reading.unread().size()));
          return new Outcome(message, reading.id());
        });
  }

  /**
   * @param seconds between samples; absent stops sampling
   */
  record Sampling(@Nullable Integer seconds) {}

  @PutMapping("/servers/{instance}/sampling")
  @AllowedTo(LEAD)
  void sample(@PathVariable String instance, @RequestBody Sampling sampling) {
    servers.sample(instance, sampling.seconds());
  }
}
