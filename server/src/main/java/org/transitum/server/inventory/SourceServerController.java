package org.transitum.server.inventory;

import static org.transitum.core.team.Role.ENGINEER;
import static org.transitum.core.team.Role.LEAD;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.transitum.server.inventory.ReadingService.OpenReading;
import org.transitum.server.inventory.SourceServers.Server;
import org.transitum.server.jobs.JobService;
import org.transitum.server.jobs.JobService.Job;
import org.transitum.server.jobs.JobService.Outcome;
import org.transitum.server.team.AllowedTo;
import org.transitum.sources.inventory.ReadableEngine;
import org.transitum.sources.inventory.ServerAddress.TlsMode;

@RestController
@RequestMapping("/api/v1/inventory/servers")
class SourceServerController {
  private final SourceServers servers;
  private final JobService jobs;

  SourceServerController(SourceServers servers, JobService jobs) {
    this.servers = servers;
    this.jobs = jobs;
  }

  record ServerEntry(
      @NotBlank @Size(max = 200) String instance,
      @NotNull ReadableEngine engine,
      @NotBlank @Size(max = 300) String host,
      @Min(1) @Max(65535) int port,
      @NotNull @Size(max = 200) String database,
      @NotBlank @Size(max = 200) String user,
      @Nullable @Size(max = 500) String password,
      @NotNull TlsMode tls) {}

  /**
   * @param seconds between samples; absent stops sampling
   */
  record Sampling(@Nullable Integer seconds) {}

  @GetMapping
  @AllowedTo({LEAD, ENGINEER})
  List<Server> servers() {
    return servers.all();
  }

  @PutMapping
  @AllowedTo(LEAD)
  void save(@Valid @RequestBody ServerEntry entry) {
    servers.save(
        entry.instance(),
        entry.engine(),
        entry.host(),
        entry.port(),
        entry.database(),
        entry.user(),
        entry.password(),
        entry.tls());
  }

  @PostMapping("/{instance}/read")
  @AllowedTo({LEAD, ENGINEER})
  Job read(@PathVariable String instance) {
    return jobs.startWaiting(
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

  @PutMapping("/{instance}/sampling")
  @AllowedTo(LEAD)
  void sample(@PathVariable String instance, @RequestBody Sampling sampling) {
    servers.sample(instance, sampling.seconds());
  }
}
