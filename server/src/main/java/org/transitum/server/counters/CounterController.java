package org.transitum.server.counters;

import static org.transitum.core.team.Role.ENGINEER;
import static org.transitum.core.team.Role.LEAD;
import static org.transitum.core.team.Role.OBSERVER;
import static org.transitum.core.team.Role.OWNER;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.transitum.server.counters.CounterService.Glance;
import org.transitum.server.counters.CounterService.SeriesCoverage;
import org.transitum.server.jobs.JobService.Job;
import org.transitum.server.team.AllowedTo;

@RestController
@RequestMapping("/api/v1/counters")
class CounterController {
  private final CounterService counters;

  CounterController(CounterService counters) {
    this.counters = counters;
  }

  /** The body is the file itself, of any size. */
  @PostMapping("/imports")
  @AllowedTo({LEAD, ENGINEER})
  Job startImport(@RequestParam String name, HttpServletRequest request) throws IOException {
    return counters.startImport(name, request.getInputStream());
  }

  @GetMapping("/coverage")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  List<SeriesCoverage> coverage(@RequestParam String key) {
    return counters.coverage(key);
  }

  @GetMapping("/glances")
  @AllowedTo({LEAD, ENGINEER, OWNER, OBSERVER})
  List<Glance> glances() {
    return counters.glances();
  }
}
