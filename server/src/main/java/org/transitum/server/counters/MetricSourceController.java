package org.transitum.server.counters;

import static org.transitum.core.team.Role.ENGINEER;
import static org.transitum.core.team.Role.LEAD;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Map;
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
import org.transitum.server.counters.MetricSourceService.MetricSource;
import org.transitum.server.jobs.JobService.Job;
import org.transitum.server.problems.Versions;
import org.transitum.server.team.AllowedTo;
import org.transitum.sources.counters.MetricMapping;

@RestController
@RequestMapping("/api/v1/counters/sources")
class MetricSourceController {
  private final MetricSourceService sources;

  MetricSourceController(MetricSourceService sources) {
    this.sources = sources;
  }

  record MetricSourceEntry(
      @NotBlank @Size(max = 120) String name,
      @NotBlank @Size(max = 500) String url,
      @Nullable @Size(max = 200) String user,
      @Nullable @Size(max = 500) String password,
      int stepSeconds,
      @NotNull Map<String, String> targets,
      @Nullable String mapping) {}

  /** The rules that ship with Transitum, as a text to be edited. */
  record StandardMapping(String mapping) {}

  @GetMapping
  @AllowedTo({LEAD, ENGINEER})
  List<MetricSource> sources() {
    return sources.all();
  }

  @GetMapping("/standard-mapping")
  @AllowedTo({LEAD, ENGINEER})
  StandardMapping standardMapping() {
    return new StandardMapping(MetricMapping.standardText());
  }

  /** If-Match carries the version that was seen, 0 for a new one. */
  @PutMapping
  @AllowedTo(LEAD)
  List<MetricSource> save(
      @RequestHeader("If-Match") String ifMatch, @Valid @RequestBody MetricSourceEntry entry) {
    String user = entry.user() == null || entry.user().isBlank() ? null : entry.user();
    String mapping = entry.mapping() == null || entry.mapping().isBlank() ? null : entry.mapping();
    sources.save(
        new MetricSource(
            entry.name().strip(),
            entry.url(),
            user,
            entry.stepSeconds(),
            entry.targets(),
            mapping,
            null,
            0),
        entry.password(),
        Versions.of(ifMatch));
    return sources.all();
  }

  @DeleteMapping("/{name}")
  @AllowedTo(LEAD)
  void drop(@PathVariable String name) {
    sources.drop(name);
  }

  @PostMapping("/{name}/read")
  @AllowedTo({LEAD, ENGINEER})
  Job read(@PathVariable String name, @RequestParam(defaultValue = "30") int days) {
    return sources.read(name, days);
  }
}
